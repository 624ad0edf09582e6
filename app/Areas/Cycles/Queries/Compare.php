<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Cycles\Actions\InsertEntries;
use LucidStep\App\Areas\Cycles\Data\ComparedEntry;
use LucidStep\App\Areas\Cycles\Data\ComparedSide;
use LucidStep\App\Areas\Cycles\Data\Comparison;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Cycle;
use LucidStep\Core\Planning\Comparison as Rules;
use LucidStep\Core\Planning\CycleState;

/**
 * Two cycles, or two builds whatever cycles they were walked in, beside each other: what became of the same entry.
 */
final readonly class Compare
{
    public function cycles(Cycle $one, Cycle $other): Comparison
    {
        $place = static fn(Cycle $c): array => [
            'build' => $c->build?->position,
            'date' => $c->starts_on->toDateString(),
            'number' => $c->number,
        ];
        [$before, $after] = Rules::isEarlier($place($other), $place($one)) ? [$other, $one] : [$one, $other];

        return $this->compared(self::cycle($before), self::cycle($after), $this->ofCycle($before), $this->ofCycle($after));
    }

    public function builds(Build $one, Build $other): Comparison
    {
        [$before, $after] = $other->position < $one->position ? [$other, $one] : [$one, $other];
        $side = static fn(Build $b): ComparedSide => new ComparedSide('build', $b->id, "Build {$b->name}", $b->name);

        return $this->compared($side($before), $side($after), $this->ofBuild($before), $this->ofBuild($after));
    }

    private static function cycle(Cycle $cycle): ComparedSide
    {
        $build = $cycle->build->name ?? null;

        return new ComparedSide(
            'cycle',
            $cycle->key,
            $cycle->name . (null === $build ? '' : " (build {$build})"),
            null === $build ? $cycle->key : "{$cycle->key}, {$build}",
        );
    }

    /**
     * @param  list<\stdClass>  $a of the earlier
     * @param  list<\stdClass>  $b of the later
     */
    private function compared(ComparedSide $before, ComparedSide $after, array $a, array $b): Comparison
    {
        $said = static fn(\stdClass $e): array => ['key' => $e->same, 'display_state' => $e->shown];
        $pairs = Rules::of(array_map($said, $a), array_map($said, $b));
        $lines = [];
        foreach ($pairs as $pair) {
            $x = null === $pair['before'] ? null : $a[$pair['before']];
            $y = null === $pair['after'] ? null : $b[$pair['after']];
            $one = $y ?? ($x ?? throw new \LogicException('A pair of nothing.'));
            $lines[] = new ComparedEntry(
                $one->key,
                $one->title,
                (string) $one->configuration,
                $x?->shown,
                $y?->shown,
                $pair['is'],
                $x?->id,
                $y?->id,
            );
        }

        return new Comparison($before, $after, (object) array_count_values(array_column($pairs, 'is')), $lines);
    }

    /**
     * @return list<\stdClass> entries as they show now
     */
    private function ofCycle(Cycle $cycle): array
    {
        return $this->alike(
            DB::table('entries')->where('cycle_id', $cycle->id)->orderBy('entries.position')->addSelect('display_state as shown'),
        );
    }

    /**
     * @return list<\stdClass> entries walked on the build, each as its newest finished attempt there found it; of the same in
     *     several cycles the one that was finished last
     */
    private function ofBuild(Build $build): array
    {
        $newest = DB::table('attempts')
            ->join('entries', 'entries.id', '=', 'entry_id')
            ->join('cycles', 'cycles.id', '=', 'entries.cycle_id')
            ->where('attempts.build_id', $build->id)
            ->where('attempts.state', 'finished')
            ->where('cycles.state', '<>', CycleState::Abandoned)
            ->selectRaw(
                'distinct on (entries.case_id, entries.configuration_id, entries.row_ids::text) entries.id as entry, attempts.verdict',
            )
            ->orderByRaw(
                'entries.case_id, entries.configuration_id, entries.row_ids::text, attempts.finished_at desc, attempts.number desc',
            );

        return $this->alike(
            DB::table('entries')
                ->joinSub($newest, 'newest', 'newest.entry', '=', 'entries.id')
                ->orderBy('cases.number')
                ->orderBy('configurations.position')
                ->addSelect('newest.verdict as shown'),
        );
    }

    /**
     * @return list<\stdClass> with `same`: what makes two entries the same
     */
    private function alike(\Illuminate\Database\Query\Builder $entries): array
    {
        $found = $entries
            ->join('cases', 'cases.id', '=', 'case_id')
            ->leftJoin('configurations', 'configurations.id', '=', 'configuration_id')
            ->addSelect(
                'entries.id',
                'case_id',
                'configuration_id',
                'row_ids',
                'cases.key',
                'cases.title',
                'configurations.name as configuration',
            )
            ->get();
        foreach ($found as $e) {
            $e->same = InsertEntries::key($e->case_id, $e->configuration_id, null === $e->row_ids ? null : json_decode($e->row_ids, true));
        }

        return array_values($found->all());
    }
}
