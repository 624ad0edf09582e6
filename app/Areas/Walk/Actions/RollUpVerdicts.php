<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Round;
use LucidStep\Core\Verdict\RoundFacts;
use LucidStep\Core\Verdict\Rounds;
use LucidStep\Core\Verdict\Verdict;

/**
 * Brings the verdicts of rounds and attempt in line with their steps. What did not change is not written.
 */
final class RollUpVerdicts
{
    /**
     * @param  list<Round>  $rounds all of the attempt, with their results
     */
    public function __invoke(Attempt $attempt, array $rounds): void
    {
        $this->save($attempt, $rounds, array_map(static fn(Round $r): RoundFacts => $r->facts(), $rounds));
    }

    /**
     * @param  list<Round>  $rounds
     * @param  list<RoundFacts>  $facts of each of them, in the same order
     */
    public function save(Attempt $attempt, array $rounds, array $facts): void
    {
        $changed = [];
        foreach ($rounds as $i => $round) {
            $round->roll_up = $facts[$i]->rollUp();
            if (['roll_up'] === array_keys($round->getDirty())) {
                $changed[$round->roll_up->value][] = $round->syncOriginal()->id;
            } else {
                $round->save();
            }
        }
        // One step may change many rounds, but there are few verdicts.
        foreach ($changed as $rollUp => $ids) {
            Round::query()
                ->whereKey($ids)
                ->update(['roll_up' => $rollUp]);
        }
        $attempt->roll_up = Rounds::rollUp($facts);
        $attempt->has_verdict = [] !== array_filter($facts, static fn(RoundFacts $r): bool => Verdict::NotRun !== $r->rollUp());
    }
}
