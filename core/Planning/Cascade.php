<?php

declare(strict_types=1);

namespace LucidStep\Core\Planning;

/**
 * Blocking on (rules of the job, 3): a failed or blocked entry stops what needs its pass.
 */
final class Cascade
{
    /**
     * The entries reached from one through `only if passed` conditions alone.
     *
     * @param  array<string, bool>  $open by entry: whether it may be stopped, having no final verdict and no open attempt with one
     *
     * @return list<string> those that may be stopped, nearest first
     */
    public static function reach(string $from, Conditions $conditions, array $open): array
    {
        $waiting = [];
        foreach ($conditions->all as $condition) {
            if (ConditionKind::OnlyIfPassed === $condition->kind) {
                $waiting[$condition->needs][] = $condition->entry;
            }
        }
        $seen = [$from => true];
        $found = [];
        for ($queue = [$from]; [] !== $queue; ) {
            foreach ($waiting[array_shift($queue)] ?? [] as $entry) {
                if (!isset($seen[$entry])) {
                    $seen[$entry] = true;
                    $queue[] = $entry;
                    if ($open[$entry] ?? false) {
                        $found[] = $entry;
                    }
                }
            }
        }

        return $found;
    }

    /**
     * The causes that still stand: those with fail or blocked of their own that the entry is still reached from.
     *
     * @param  list<string>  $causes    of one stopped entry
     * @param  array<string, string>  $verdicts the causes' own verdicts by entry, without what a cascade shows; a retest counts as none
     *
     * @return list<string> empty: the entry is stopped no longer
     */
    public static function standing(string $entry, array $causes, Conditions $conditions, array $verdicts): array
    {
        return array_values(
            array_filter(
                $causes,
                static fn(string $cause): bool => \in_array($verdicts[$cause] ?? '', ['fail', 'blocked'], true) &&
                    \in_array($entry, self::reach($cause, $conditions, [$entry => true]), true),
            ),
        );
    }
}
