<?php

declare(strict_types=1);

namespace LucidStep\Core\Exchange;

use LucidStep\Core\Casebook\Step;

/**
 * Steps written as numbered lines in one cell: "1. Open the page", "2) Choose …". Lines without a number belong to
 * the one before; a cell without any number is one step per line.
 */
final class NumberedLines
{
    /**
     * @return list<Step> actions with the data and the results of the same number; a result without an action of its
     *     number goes to the last step
     */
    public static function steps(string $actions, string $data, string $expected): array
    {
        $a = self::split($actions);
        $d = self::split($data);
        $e = self::split($expected);
        if ([] === $a) {
            return [];
        }
        // One unnumbered result for many steps is what is expected in the end.
        foreach (['d' => $data, 'e' => $expected] as $name => $text) {
            if (\count($a) > 1 && !self::isNumbered($text) && 1 === \count(${$name})) {
                ${$name} = [array_key_last($a) => reset(${$name})];
            }
        }
        $last = array_key_last($a);
        foreach ([&$d, &$e] as &$side) {
            foreach ($side as $number => $text) {
                if (!isset($a[$number])) {
                    $side[$last] = isset($side[$last]) ? "{$side[$last]}\n{$text}" : $text;
                }
            }
        }
        unset($side);
        $steps = [];
        foreach ($a as $number => $action) {
            $steps[] = new Step($action, (string) ($d[$number] ?? ''), (string) ($e[$number] ?? ''));
        }

        return $steps;
    }

    /**
     * A text as a numbered line; what follows its first line and looks like a number stands behind a backslash.
     */
    public static function line(int $number, string $text): string
    {
        return rtrim("{$number}. " . preg_replace('/\n(?=\\\\*\s*\d{1,3}\s*[.):])/u', "\n\\\\", $text));
    }

    public static function isNumbered(string $text): bool
    {
        return 1 === preg_match('/^\s*1\s*[.):](?:\s|$)/', $text);
    }

    /**
     * @return array<int, string> by number, from 1
     */
    public static function split(string $text): array
    {
        $numbered = self::isNumbered($text);
        $pieces = [];
        $at = 0;
        foreach (explode("\n", $text) as $line) {
            if ($numbered && 1 === preg_match('/^\s*(\d{1,3})\s*[.):](?:\s+(.*))?$/us', $line, $m) && (int) $m[1] === $at + 1) {
                $pieces[++$at] = trim($m[2] ?? '');
            } elseif ($numbered) {
                $line = preg_replace('/^\\\\(?=\\\\*\s*\d{1,3}\s*[.):])/u', '', rtrim($line));
                $pieces[$at] = rtrim(($pieces[$at] ?? '') . "\n{$line}");
            } elseif ('' !== trim($line)) {
                $pieces[++$at] = trim($line);
            }
        }

        return $pieces;
    }
}
