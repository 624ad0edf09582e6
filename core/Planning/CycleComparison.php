<?php

declare(strict_types=1);

namespace LucidStep\Core\Planning;

/**
 * Two cycles beside each other: what became of the same entry.
 */
final class CycleComparison
{
    /**
     * Entries are the same when they are of one case, configuration and choice of rows; several of the same are matched
     * in order.
     *
     * @param  list<array{key: string, display_state: string}>  $before entries of the earlier cycle: what makes them the
     *     same, and what they show
     * @param  list<array{key: string, display_state: string}>  $after
     *
     * @return list<array{before: ?int, after: ?int, is: 'same'|'better'|'worse'|'other'|'gone'|'new'}> places in the
     *     lists, in the order of the later, then what is gone
     */
    public static function of(array $before, array $after): array
    {
        $places = [];
        foreach ($before as $i => $entry) {
            $places[$entry['key']][] = $i;
        }
        $pairs = [];
        foreach ($after as $j => $entry) {
            $i = isset($places[$entry['key']]) ? array_shift($places[$entry['key']]) : null;
            $pairs[] = [
                'before' => $i,
                'after' => $j,
                'is' => null === $i ? 'new' : self::change($before[$i]['display_state'], $entry['display_state']),
            ];
        }
        $gone = array_merge([], ...array_values($places));
        sort($gone);
        foreach ($gone as $i) {
            $pairs[] = ['before' => $i, 'after' => null, 'is' => 'gone'];
        }

        return $pairs;
    }

    /**
     * @return 'same'|'better'|'worse'|'other' worse and better between pass on the one side, fail or blocked on the other
     */
    private static function change(string $before, string $after): string
    {
        $bad = ['fail', 'blocked'];

        return match (true) {
            $before === $after => 'same',
            'pass' === $before && \in_array($after, $bad, true) => 'worse',
            \in_array($before, $bad, true) && 'pass' === $after => 'better',
            default => 'other',
        };
    }
}
