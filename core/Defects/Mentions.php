<?php

declare(strict_types=1);

namespace LucidStep\Core\Defects;

/**
 * Who is named in a text: an @ and a name as people have it, whole words, whatever the case is.
 */
final class Mentions
{
    /**
     * @param  array<string, string>  $names of everybody who can be named, by id
     *
     * @return list<string> ids of those named, each once; of two names of which one begins as the other, the longer that fits
     */
    public static function in(string $text, array $names): array
    {
        // Code is quoted, and names nobody.
        $text = (string) preg_replace('/```.*?(?:```|\z)|`[^`\n]*`/su', ' ', $text);
        uasort($names, static fn(string $a, string $b): int => mb_strlen($b) <=> mb_strlen($a));
        $found = [];
        foreach ($names as $id => $name) {
            $name = trim($name);
            if ('' === $name) {
                continue;
            }
            $pattern = '/(?<![\p{L}\p{N}_.@])@' . preg_quote($name, '/') . '(?![\p{L}\p{N}_])/iu';
            $rest = preg_replace($pattern, ' ', $text, -1, $count);
            if ($count > 0 && null !== $rest) {
                $found[] = (string) $id;
                $text = $rest;
            }
        }

        return $found;
    }
}
