<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Cycles\Actions\InsertEntries;
use LucidStep\App\Areas\Cycles\Data\ComparedEntry;
use LucidStep\App\Areas\Cycles\Data\CycleComparison;
use LucidStep\App\Areas\Cycles\Data\CycleSummary;
use LucidStep\App\Models\Cycle;
use LucidStep\Core\Planning\CycleComparison as Rules;

/**
 * Two cycles, or builds, beside each other: what became of the same entry.
 */
final readonly class CompareCycles
{
    public function __construct(private ReadBoard $board) {}

    public function __invoke(Cycle $before, Cycle $after): CycleComparison
    {
        [$a, $b] = [$this->entries($before), $this->entries($after)];
        $pairs = Rules::of(
            array_map(static fn(\stdClass $e): array => ['key' => $e->same, 'display_state' => $e->display_state], $a),
            array_map(static fn(\stdClass $e): array => ['key' => $e->same, 'display_state' => $e->display_state], $b),
        );
        $counts = $this->board->counts([$before->id, $after->id]);
        $lines = [];
        foreach ($pairs as $pair) {
            $x = null === $pair['before'] ? null : $a[$pair['before']];
            $y = null === $pair['after'] ? null : $b[$pair['after']];
            $one = $y ?? ($x ?? throw new \LogicException('A pair of nothing.'));
            $lines[] = new ComparedEntry(
                $one->key,
                $one->title,
                (string) $one->configuration,
                $x?->display_state,
                $y?->display_state,
                $pair['is'],
                $x?->id,
                $y?->id,
            );
        }

        return new CycleComparison(
            CycleSummary::from($before->load('build'), $counts[$before->id] ?? []),
            CycleSummary::from($after->load('build'), $counts[$after->id] ?? []),
            (object) array_count_values(array_column($pairs, 'is')),
            $lines,
        );
    }

    /**
     * @return list<\stdClass>
     */
    private function entries(Cycle $cycle): array
    {
        return array_values(
            DB::table('entries')
                ->join('cases', 'cases.id', '=', 'case_id')
                ->leftJoin('configurations', 'configurations.id', '=', 'configuration_id')
                ->where('cycle_id', $cycle->id)
                ->orderBy('entries.position')
                ->get([
                    'entries.id',
                    'case_id',
                    'configuration_id',
                    'row_ids',
                    'display_state',
                    'cases.key',
                    'cases.title',
                    'configurations.name as configuration',
                ])
                ->map(static function (\stdClass $e): \stdClass {
                    $e->same = InsertEntries::key(
                        $e->case_id,
                        $e->configuration_id,
                        null === $e->row_ids ? null : json_decode($e->row_ids, true),
                    );

                    return $e;
                })
                ->all(),
        );
    }
}
