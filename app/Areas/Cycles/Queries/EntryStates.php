<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Cycles\Data\RefusedEntry;
use LucidStep\App\Areas\Cycles\EntryChanges\EntryOrder;
use LucidStep\App\Models\Cycle;

/**
 * What a change of entries may alter, as it stands: kept before and after it, to undo it.
 *
 * @phpstan-type State array{
 *     entries: array<string, array<string, scalar|null>>,
 *     conditions: list<array<string, scalar|null>>,
 *     order: list<string>
 * }
 */
final readonly class EntryStates
{
    private const COLUMNS = ['assignee_id', 'not_before', 'not_after', 'handover_note', 'handover_by_id'];

    public function __construct(private EntryOrder $order) {}

    /**
     * @param  list<string>  $ids
     *
     * @return State
     */
    public function of(Cycle $cycle, array $ids): array
    {
        $entries = $conditions = [];
        foreach (array_chunk($ids, 5000) as $some) {
            foreach (
                DB::table('entries')
                    ->whereIn('id', $some)
                    ->get(['id', ...self::COLUMNS])
                as $row
            ) {
                $entries[$row->id] = \array_slice((array) $row, 1);
            }
            foreach (DB::table('entry_conditions')->whereIn('entry_id', $some)->get() as $row) {
                $conditions[] = (array) $row;
            }
        }
        ksort($entries);
        usort($conditions, static fn(array $a, array $b): int => [$a['entry_id'], $a['needs_id']] <=> [$b['entry_id'], $b['needs_id']]);

        return ['entries' => $entries, 'conditions' => $conditions, 'order' => $this->order->of($cycle)];
    }

    /**
     * @param  array<string, string>  $why by entry
     *
     * @return list<RefusedEntry>
     */
    public function refused(array $why): array
    {
        $names = DB::table('entries')
            ->join('cases', 'cases.id', '=', 'case_id')
            ->whereIn('entries.id', array_keys($why))
            ->get(['entries.id', 'cases.key', 'cases.title']);

        return array_values(
            $names->map(static fn(\stdClass $n): RefusedEntry => new RefusedEntry($n->id, $n->key, $n->title, $why[$n->id]))->all(),
        );
    }
}
