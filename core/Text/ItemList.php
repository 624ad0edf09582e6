<?php

declare(strict_types=1);

namespace LucidStep\Core\Text;

/**
 * Several names in one text, between commas, semicolons or line ends. A name that holds one of these stands in quotes, as in CSV:
 * `money, "deck, car", "the ""Tide"""`. For every list of names without space around them, `read(write($names)) === $names`.
 */
final class ItemList
{
    /**
     * @return list<string> without space around them, and none empty
     */
    public static function read(string $text): array
    {
        $names = [];
        preg_match_all('/\s*+(?:"((?:[^"]|"")*+)"(?=\s*(?:[,;\n]|$))|([^,;\n]*+))\s*(?:[,;\n]|$)/uD', $text, $found, \PREG_SET_ORDER);
        foreach ($found as $one) {
            $name = trim($one[2] ?? str_replace('""', '"', $one[1] ?? ''));
            if ('' !== $name) {
                $names[] = $name;
            }
        }

        return $names;
    }

    /**
     * Names that were given one by one, in one line each and each once.
     *
     * @param  array<array-key, mixed>  $names
     *
     * @return list<string> none empty
     */
    public static function names(array $names): array
    {
        $line = static fn(string $name): string => trim((string) preg_replace('/\s+/u', ' ', $name));
        $lines = array_map($line, array_map(strval(...), array_filter($names, is_scalar(...))));

        return array_values(array_unique(array_filter($lines, static fn(string $name): bool => '' !== $name)));
    }

    /**
     * @param  list<string>  $names
     */
    public static function write(array $names): string
    {
        return implode(
            ', ',
            array_map(
                static fn(string $n): string => 1 === preg_match('/[,;\n]|^"/u', $n) ? '"' . str_replace('"', '""', $n) . '"' : $n,
                $names,
            ),
        );
    }
}
