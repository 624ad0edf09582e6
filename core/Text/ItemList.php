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
