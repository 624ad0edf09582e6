<?php

declare(strict_types=1);

namespace LucidStep\Core\Text;

use SebastianBergmann\Diff\Differ;
use SebastianBergmann\Diff\Output\DiffOnlyOutputBuilder;

/**
 * What differs between two texts, word by word (longest common subsequence, by sebastian/diff).
 */
final class Difference
{
    /** Beyond this many words on both sides together, only the differing middle is told, as one piece. */
    private const MOST = 2000;

    /**
     * @return list<array{kind: 'same'|'removed'|'added', text: string}> pieces that, without the added ones, give the
     *     first text and, without the removed ones, the second
     */
    public static function words(string $from, string $to): array
    {
        $a = self::split($from);
        $b = self::split($to);
        $start = 0;
        while ($start < \count($a) && $start < \count($b) && $a[$start] === $b[$start]) {
            $start++;
        }
        $end = 0;
        while ($end < \count($a) - $start && $end < \count($b) - $start && $a[\count($a) - 1 - $end] === $b[\count($b) - 1 - $end]) {
            $end++;
        }
        $pieces = [];
        self::add($pieces, 'same', implode('', \array_slice($a, 0, $start)));
        self::middle($pieces, \array_slice($a, $start, \count($a) - $start - $end), \array_slice($b, $start, \count($b) - $start - $end));
        self::add($pieces, 'same', 0 === $end ? '' : implode('', \array_slice($a, -$end)));

        return $pieces;
    }

    /**
     * @param  list<array{kind: 'same'|'removed'|'added', text: string}>  $pieces
     * @param  list<string>  $a
     * @param  list<string>  $b
     */
    private static function middle(array &$pieces, array $a, array $b): void
    {
        $n = \count($a);
        $m = \count($b);
        if ($n + $m > self::MOST || 0 === $n || 0 === $m) {
            self::add($pieces, 'removed', implode('', $a));
            self::add($pieces, 'added', implode('', $b));

            return;
        }
        /** @var list<array{string, int}> $found */
        $found = (new Differ(new DiffOnlyOutputBuilder()))->diffToArray($a, $b);
        foreach ($found as [$text, $is]) {
            match ($is) {
                Differ::OLD => self::add($pieces, 'same', $text),
                Differ::ADDED => self::add($pieces, 'added', $text),
                Differ::REMOVED => self::add($pieces, 'removed', $text),
                // A warning of the package about ends of lines is no text.
                default => null,
            };
        }
    }

    /**
     * @param  list<array{kind: 'same'|'removed'|'added', text: string}>  $pieces
     * @param  'same'|'removed'|'added'  $kind
     */
    private static function add(array &$pieces, string $kind, string $text): void
    {
        $last = \count($pieces) - 1;
        if ('' === $text) {
            return;
        }
        if ($last >= 0 && $pieces[$last]['kind'] === $kind) {
            $pieces[$last]['text'] .= $text;
        } else {
            $pieces[] = ['kind' => $kind, 'text' => $text];
        }
    }

    /**
     * @return list<string>
     */
    private static function split(string $text): array
    {
        return preg_split('/([\p{L}\p{N}_]+|\s+|.)/us', $text, -1, \PREG_SPLIT_DELIM_CAPTURE | \PREG_SPLIT_NO_EMPTY) ?: [];
    }
}
