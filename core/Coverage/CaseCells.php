<?php

declare(strict_types=1);

namespace LucidStep\Core\Coverage;

/**
 * What cases show, from scratch: each cell (case, configuration, data row) by the newest of its rounds (rules of the job, 2). What
 * is kept beside the record must equal this.
 */
final class CaseCells
{
    /**
     * @param  iterable<FinishedRound>  $finished those in scope
     * @param  iterable<PlannedRound>  $planned  those in scope
     *
     * @return array<string, list<Outcome>> the cells of each case that has any, by case
     */
    public static function of(iterable $finished, iterable $planned): array
    {
        /** @var array<string, array<string, FinishedRound>> $newest */
        $newest = [];
        foreach ($finished as $round) {
            $cell = self::cell($round->configuration, $round->row);
            $known = $newest[$round->case][$cell] ?? null;
            if (null === $known || $round->isNewerThan($known)) {
                $newest[$round->case][$cell] = $round;
            }
        }
        $outcomes = [];
        foreach ($newest as $case => $cells) {
            foreach ($cells as $cell => $round) {
                $outcomes[$case][$cell] = new Outcome($round->state(), $round->state()->isWalked());
            }
        }
        foreach ($planned as $round) {
            $cell = self::cell($round->configuration, $round->row);
            if (!isset($newest[$round->case][$cell])) {
                $states = [$round->shown, $outcomes[$round->case][$cell]->state ?? $round->shown];
                $outcomes[$round->case][$cell] = new Outcome(CoverageState::worst($states) ?? $round->shown, false);
            }
        }

        return array_map(array_values(...), $outcomes);
    }

    private static function cell(?string $configuration, ?string $row): string
    {
        return "{$configuration}/{$row}";
    }
}
