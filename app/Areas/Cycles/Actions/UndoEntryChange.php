<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Actions;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Cycles\Data\PlanActResult;
use LucidStep\App\Areas\Cycles\EntryChanges\EntryOrder;
use LucidStep\App\Areas\Cycles\Exceptions\CycleConflict;
use LucidStep\App\Areas\Cycles\Queries\EntryStates;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\PlanAct;
use LucidStep\App\Support\Problems\Conflict;

/**
 * Takes a change of entries back. What was changed again since stays as it is and is named. A fixed number of queries,
 * however many entries.
 */
final readonly class UndoEntryChange
{
    public function __construct(private EntryStates $states, private EntryOrder $order) {}

    /**
     * @param  PlanAct  $act locked by {@see UndoPlanAct}
     *
     * @throws Conflict when the cycle is closed, or its order was changed again
     */
    public function __invoke(PlanAct $act): PlanActResult
    {
        $cycle = OpenCycle::lock(Cycle::query()->findOrFail($act->cycle_id));
        $count = $this->restore($cycle, $act);
        $now = $this->states->of($cycle, array_map(strval(...), array_keys($act->before['entries'])));
        [$changed, $refused] = $this->fields($act, $now['entries']);
        $count += $changed;
        if (!isset($act->before['removed'])) {
            $count += $this->conditions($act, $now['conditions']);
        }
        $count = max($count, $this->order($cycle, $act));
        BlockDependents::stopAgain($cycle, $act->before['stops'] ?? []);
        BlockDependents::lift($cycle->id);

        return new PlanActResult(null, $act->undoTitle(), $count, $this->states->refused($refused), []);
    }

    /**
     * Entries that were removed come back at the end.
     */
    private function restore(Cycle $cycle, PlanAct $act): int
    {
        if (!isset($act->before['removed'])) {
            return 0;
        }
        $top = (int) DB::table('entries')->where('cycle_id', $cycle->id)->max('position');
        // One of them may have come back by itself: somebody had walked it without the server.
        $back = array_flip(
            DB::table('entries')
                ->whereIn('id', array_column($act->before['removed'], 'id'))
                ->pluck('id')
                ->all(),
        );
        $rows = [];
        foreach ($act->before['removed'] as $row) {
            if (!isset($back[$row['id']])) {
                $rows[] = [...$row, 'position' => ++$top, 'addition_id' => null];
            }
        }
        foreach (array_chunk($rows, 500) as $some) {
            DB::table('entries')->insert($some);
        }
        $there = DB::table('entries')->where('cycle_id', $cycle->id)->pluck('id')->flip();
        $conditions = array_filter(
            $act->before['their_conditions'],
            static fn(array $c): bool => isset($there[$c['entry_id']], $there[$c['needs_id']]),
        );
        foreach (array_chunk(array_values($conditions), 5000) as $some) {
            DB::table('entry_conditions')->insertOrIgnore($some);
        }

        return \count($rows);
    }

    /**
     * @param  array<string, array<string, scalar|null>>  $now
     *
     * @return array{int, array<string, string>} how many were changed back, and why others were not
     */
    private function fields(PlanAct $act, array $now): array
    {
        $rows = $refused = [];
        foreach ($act->before['entries'] as $id => $was) {
            $id = (string) $id;
            $then = $act->after['entries'][$id] ?? null;
            // The database keeps no order of fields.
            if ($was == $then || null === $then) {
                continue;
            }
            if (($now[$id] ?? null) != $then) {
                $refused[$id] = 'It was changed again since.';
            } else {
                $rows[] = ['id' => $id, ...$was];
            }
        }
        foreach (array_chunk($rows, 5000) as $some) {
            DB::update(
                <<<'SQL'
                update entries set assignee_id = n.assignee_id, not_before = n.not_before, not_after = n.not_after,
                    handover_note = n.handover_note, handover_by_id = n.handover_by_id
                from jsonb_to_recordset(?::jsonb) as n (
                    id uuid, assignee_id uuid, not_before timestamptz, not_after timestamptz, handover_note text, handover_by_id uuid
                )
                where entries.id = n.id
                SQL
                ,
                [json_encode($some, \JSON_THROW_ON_ERROR)],
            );
        }

        return [\count($rows), $refused];
    }

    /**
     * @param  list<array<string, scalar|null>>  $now
     */
    private function conditions(PlanAct $act, array $now): int
    {
        [$was, $then, $is] = [self::byPair($act->before['conditions']), self::byPair($act->after['conditions']), self::byPair($now)];
        // What stands otherwise than the change left it was changed again since.
        $untouched = static fn(string $pair): bool => ($is[$pair] ?? null) == ($then[$pair] ?? null);
        $added = array_filter(
            $then,
            static fn(array $c, string $pair): bool => !isset($was[$pair]) && $untouched($pair),
            \ARRAY_FILTER_USE_BOTH,
        );
        $back = array_filter(
            $was,
            static fn(array $c, string $pair): bool => ($then[$pair] ?? null) != $c && $untouched($pair),
            \ARRAY_FILTER_USE_BOTH,
        );
        foreach (array_chunk($added, 5000) as $some) {
            DB::delete(
                'delete from entry_conditions c using unnest(?::uuid[], ?::uuid[]) as n (entry_id, needs_id) ' .
                    'where c.entry_id = n.entry_id and c.needs_id = n.needs_id',
                ['{' . implode(',', array_column($some, 'entry_id')) . '}', '{' . implode(',', array_column($some, 'needs_id')) . '}'],
            );
        }
        foreach (array_chunk($back, 5000) as $some) {
            DB::table('entry_conditions')->upsert($some, ['entry_id', 'needs_id'], ['kind']);
        }

        return \count($added) + \count($back);
    }

    /**
     * @return int 1 when the order was changed back
     */
    private function order(Cycle $cycle, PlanAct $act): int
    {
        [$before, $after] = [$act->before['order'], $act->after['order']];
        if ($before === $after) {
            return 0;
        }
        $order = $this->order->of($cycle);
        $kept = static fn(array $of, array $in): array => array_values(array_intersect($of, $in));
        if ($kept($order, $after) === $kept($after, $order)) {
            $this->order->write([...$kept($before, $order), ...array_values(array_diff($order, $before))]);

            return 1;
        }
        if (!isset($act->before['removed'])) {
            throw CycleConflict::orderChanged();
        }

        return 0;
    }

    /**
     * @param  list<array<string, scalar|null>>  $conditions
     *
     * @return array<string, array<string, scalar|null>>
     */
    private static function byPair(array $conditions): array
    {
        $by = [];
        foreach ($conditions as $condition) {
            $by["{$condition['entry_id']} {$condition['needs_id']}"] = $condition;
        }

        return $by;
    }
}
