<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Defects\Data\FixProgress;
use LucidStep\App\Areas\Defects\Data\RetestedEntry;
use LucidStep\App\Models\Defect;
use LucidStep\Core\Defects\Chains;
use LucidStep\Core\Defects\RetestResult;
use LucidStep\Core\Verdict\RoundFacts;
use LucidStep\Core\Verdict\Rounds;
use LucidStep\Core\Verdict\Verdict;

/**
 * Reads what became of the entries a defect was met in since its fix, on the build of the fix or later.
 */
final class ReadFixProgress
{
    /**
     * @param  Chains  $duplicates of its project: what is called the same as it counts too
     *
     * @return ?FixProgress null where no build with a fix is named
     */
    public function __invoke(Defect $defect, Chains $duplicates): ?FixProgress
    {
        if (null === $defect->fixed_build_id || null === $defect->fixed_at) {
            return null;
        }
        $links = $this->links($duplicates->allOf($defect->id));
        $walks = $this->walks($defect, array_keys($links));
        $verdicts = $this->verdicts(array_column($walks, 'id'));
        $entries = [];
        foreach ($this->entries($defect, array_keys($links)) as $e) {
            $walk = $walks[$e->id] ?? null;
            $results =
                null === $walk
                    ? []
                    : array_map(
                        static fn(?string $action): RetestResult => null === $action
                            ? RetestResult::ofAttempt(Verdict::from($walk->verdict))
                            : RetestResult::ofStep($verdicts[$walk->id][$action] ?? []),
                        $links[$e->id],
                    );
            $entries[] = new RetestedEntry(
                $e->id,
                $e->key,
                $e->title,
                $e->cycle_key,
                $e->asked,
                RetestResult::all($results)->value,
                $walk?->id,
            );
        }

        return FixProgress::of($entries);
    }

    /**
     * @param  list<string>  $defects ids
     *
     * @return array<string, list<?string>> what each linked step says to do, by entry; null: the entry is linked as a whole
     */
    private function links(array $defects): array
    {
        $links = [];
        $rows = DB::table('defect_links as l')
            ->join('attempts as a', 'a.id', '=', 'l.attempt_id')
            ->whereIn('l.defect_id', $defects)
            ->distinct()
            ->get(['l.entry_id', DB::raw("a.snapshot->'steps'->(l.step - 1)->>'action' as action")]);
        foreach ($rows as $row) {
            $links[(string) $row->entry_id][] = $row->action;
        }
        // Where a step is named, that is what is to pass; the whole counts where none is.
        return array_map(static function (array $actions): array {
            $steps = array_values(array_filter($actions, is_string(...)));

            return [] === $steps ? [null] : $steps;
        }, $links);
    }

    /**
     * @param  list<string>  $entries
     *
     * @return list<object{id: string, key: string, title: string, cycle_key: string, asked: bool}>
     */
    private function entries(Defect $defect, array $entries): array
    {
        /** @var list<object{id: string, key: string, title: string, cycle_key: string, asked: bool}> $rows */
        $rows = DB::table('entries as e')
            ->join('cases as k', 'k.id', '=', 'e.case_id')
            ->join('cycles as c', 'c.id', '=', 'e.cycle_id')
            ->whereIn('e.id', $entries)
            ->orderBy('c.key')
            ->orderBy('e.position')
            ->selectRaw(
                "e.id, k.key, k.title, c.key as cycle_key, coalesce(e.retest_asked_at >= ? or e.display_state = 'retest', false) as asked",
                [$defect->fixed_at?->format('Y-m-d H:i:s.uP')],
            )
            ->get()
            ->all();

        return $rows;
    }

    /**
     * @param  list<string>  $entries
     *
     * @return array<string, object{id: string, verdict: string}> the newest finished walk with the fix, by entry
     */
    private function walks(Defect $defect, array $entries): array
    {
        /** @var array<string, object{id: string, verdict: string}> $walks */
        $walks = DB::table('attempts as a')
            ->join('builds as b', 'b.id', '=', 'a.build_id')
            ->whereIn('a.entry_id', $entries)
            ->where('a.state', 'finished')
            ->where('a.finished_at', '>=', $defect->fixed_at?->format('Y-m-d H:i:s.uP'))
            ->where('b.position', '>=', $defect->fixedBuild?->position)
            ->orderBy('a.number')
            ->get(['a.entry_id', 'a.id', 'a.verdict'])
            ->keyBy('entry_id')
            ->all();

        return $walks;
    }

    /**
     * @param  list<string>  $attempts
     *
     * @return array<string, array<string, list<Verdict>>> of each attempt, by what the step says to do: its verdicts in the rounds that
     *     count
     */
    private function verdicts(array $attempts): array
    {
        if ([] === $attempts) {
            return [];
        }
        $actions = DB::table('attempts as a')
            ->crossJoin(DB::raw("jsonb_array_elements(a.snapshot->'steps') with ordinality as s (step, position)"))
            ->whereIn('a.id', $attempts)
            ->get(['a.id', 's.position', DB::raw("s.step ->> 'action' as action")]);
        $said = [];
        foreach ($actions as $row) {
            $said[$row->id][$row->position] = (string) $row->action;
        }
        $rounds = DB::table('rounds')
            ->whereIn('attempt_id', $attempts)
            ->get(['id', 'attempt_id', 'position', 'skipped', 'repeats']);
        $results = DB::table('step_results')
            ->whereIn('round_id', $rounds->pluck('id'))
            ->get(['round_id', 'position', 'verdict']);
        $of = $results->groupBy('round_id');
        $all = [];
        foreach ($rounds->groupBy('attempt_id') as $id => $mine) {
            $facts = $mine->map(static fn(\stdClass $r): RoundFacts => new RoundFacts($r->position, [], null !== $r->skipped, $r->repeats));
            $ids = $mine->pluck('id', 'position');
            foreach (Rounds::counted(array_values($facts->all())) as $round) {
                foreach ($round->skipped ? [] : $of[$ids[$round->position]] ?? [] as $result) {
                    $all[(string) $id][$said[$id][$result->position] ?? ''][] = Verdict::from($result->verdict);
                }
            }
        }

        return $all;
    }
}
