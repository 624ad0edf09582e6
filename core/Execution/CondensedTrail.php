<?php

declare(strict_types=1);

namespace LucidStep\Core\Execution;

/**
 * A trail that is too long to be shown mark by mark: what shows the same becomes runs with counts, never across a fail, a
 * blocked one or a retest. The device condenses in the same way; both run on `tests/shared/trail.json`.
 */
final class CondensedTrail
{
    /** What always stands for itself. */
    private const ALONE = ['fail', 'blocked', 'retest'];

    /**
     * @param  iterable<array{string, string, string}>  $marks in order: id, what it shows, group
     * @param  int  $longest so many marks need no runs
     *
     * @return list<TrailRun>
     */
    public static function of(iterable $marks, int $longest): array
    {
        $marks = \is_array($marks) ? $marks : iterator_to_array($marks, false);
        $condense = \count($marks) > $longest;
        $runs = [];
        $last = null;
        foreach ($marks as [$id, $shown, $group]) {
            if (null !== $last && $condense && $last[1] === $shown && $last[2] === $group && !\in_array($shown, self::ALONE, true)) {
                $last[3]++;

                continue;
            }
            if (null !== $last) {
                $runs[] = new TrailRun(...$last);
            }
            $last = [$id, $shown, $group, 1];
        }
        if (null !== $last) {
            $runs[] = new TrailRun(...$last);
        }

        return $runs;
    }
}
