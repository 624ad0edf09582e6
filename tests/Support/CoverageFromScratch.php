<?php

declare(strict_types=1);

namespace LucidStep\Tests\Support;

use LucidStep\App\Areas\Coverage\Queries\CaseOutcomes;
use LucidStep\App\Areas\Coverage\Queries\CoverageLens;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\Round;
use LucidStep\App\Models\TestCase;
use LucidStep\Core\Coverage\CaseCells;
use LucidStep\Core\Coverage\CoverageState;
use LucidStep\Core\Coverage\FinishedRound;
use LucidStep\Core\Coverage\Outcome;
use LucidStep\Core\Coverage\PlannedRound;
use LucidStep\Core\Planning\CycleState;
use LucidStep\Core\Verdict\AttemptState;
use LucidStep\Core\Verdict\Rounds;
use LucidStep\Core\Verdict\Verdict;
use PHPUnit\Framework\Assert;

/**
 * What cases show, computed from every attempt by the rules alone, beside what the database keeps of it.
 */
final class CoverageFromScratch
{
    public static function equalsWhatIsKept(Project $project, CoverageLens $lens, string $when = ''): void
    {
        $cases = TestCase::query()->where('project_id', $project->id)->whereNull('binned_at')->where('state', '<>', 'retired')->get();
        $expected = array_map(static function (array $cells): array {
            $found = Outcome::ofCase($cells);
            $walked = \count(array_filter($cells, static fn(Outcome $c): bool => $c->isWalked));

            return [$found->state->value, $found->isWalked, \count($cells), $walked];
        }, self::of($project, $lens));
        $kept = array_map(
            static fn(array $c): array => [$c['outcome']->state->value, $c['outcome']->isWalked, $c['cells'], $c['walked']],
            CaseOutcomes::of($project->id, $lens, array_values(array_map(strval(...), $cases->modelKeys()))),
        );
        ksort($expected);
        ksort($kept);
        Assert::assertSame(array_intersect_key($expected, $cases->keyBy('id')->all()), $kept, $when);
    }

    /**
     * @return array<string, list<Outcome>> the cells of each case
     */
    private static function of(Project $project, CoverageLens $lens): array
    {
        $builds = Build::query()->where('project_id', $project->id)->get()->keyBy('id');
        $isIn = static fn(?string $build, ?string $configuration, ?string $milestone): bool => (null === $lens->build ||
            $lens->build === $build) &&
            (null === $lens->release || (null !== $build && $builds[$build]->release_id === $lens->release)) &&
            (null === $lens->configuration || $lens->configuration === $configuration) &&
            (null === $lens->milestone || $lens->milestone === $milestone);
        $finished = $planned = [];
        foreach (Cycle::query()->where('project_id', $project->id)->get() as $cycle) {
            foreach (Entry::query()->where('cycle_id', $cycle->id)->get() as $entry) {
                $rows = $entry->row_ids ?: [null];
                $attempts = Attempt::query()->where('entry_id', $entry->id)->where('state', AttemptState::Finished)->orderBy('id')->get();
                foreach ($attempts as $attempt) {
                    if (!$isIn($attempt->build_id, $attempt->configuration_id, $cycle->milestone_id)) {
                        continue;
                    }
                    array_push($finished, ...self::rounds($entry, $attempt, $rows, $builds[$attempt->build_id ?? '']->position ?? null));
                }
                $shown =
                    \in_array($cycle->state, [CycleState::Released, CycleState::Closed], true) &&
                    $isIn($cycle->build_id, $entry->configuration_id, $cycle->milestone_id);
                foreach ($attempts->isEmpty() && $shown ? $rows : [] as $row) {
                    $state = CoverageState::from($entry->display_state);
                    $planned[] = new PlannedRound($entry->case_id, $entry->configuration_id, $row, $state);
                }
            }
        }

        return CaseCells::of($finished, $planned);
    }

    /**
     * @param  list<?string>  $rows ids
     *
     * @return list<FinishedRound>
     */
    private static function rounds(Entry $entry, Attempt $attempt, array $rows, ?int $build): array
    {
        $all = Round::query()->where('attempt_id', $attempt->id)->with('results')->get()->keyBy('position');
        $found = [];
        foreach (Rounds::counted(array_values($all->map(static fn(Round $r) => $r->facts())->all())) as $facts) {
            $first = $facts->position;
            while (null !== ($before = $all[$first]->repeats ?? null)) {
                $first = $before;
            }
            if (!$facts->skipped) {
                $verdict = $attempt->overruled || $attempt->from_list ? $attempt->verdict : $facts->rollUp();
                $found[] = new FinishedRound(
                    $entry->case_id,
                    $attempt->configuration_id,
                    $rows[$first - 1] ?? null,
                    $build,
                    (int) $attempt->finished_at?->format('Uu'),
                    $verdict ?? Verdict::NotRun,
                    $entry->display_state,
                );
            }
        }

        return $found;
    }
}
