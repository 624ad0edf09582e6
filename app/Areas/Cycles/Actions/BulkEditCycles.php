<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Actions;

use Illuminate\Support\Carbon;
use LucidStep\App\Areas\Cycles\Data\PlanActResult;
use LucidStep\App\Areas\Cycles\Data\RefusedEntry;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\PlanAct;
use LucidStep\App\Models\User;
use LucidStep\Core\Planning\CycleDates;
use LucidStep\Core\Planning\CycleLogKind;

/**
 * One act on many cycles: their end, their build. Undone as one.
 */
final readonly class BulkEditCycles
{
    public function __construct(private CycleLog $log) {}

    /**
     * Extends or moves many cycles, or changes their build.
     *
     * @param  list<string>  $ids
     * @param  array<string, mixed>  $changes `days`, `build_id`
     */
    public function __invoke(string $project, User $user, array $ids, array $changes): PlanActResult
    {
        $cycles = Cycle::query()
            ->where('project_id', $project)
            ->whereIn('id', $ids)
            ->with('milestone')
            ->orderBy('starts_on')
            ->lockForUpdate()
            ->get();
        $refused = $before = $after = $facts = [];
        foreach ($cycles as $cycle) {
            $fields = array_filter([
                'ends_on' => isset($changes['days']) ? $cycle->ends_on->copy()->addDays((int) $changes['days'])->toDateString() : null,
                'build_id' => $changes['build_id'] ?? null,
            ]);
            $why = match (true) {
                !$cycle->state->isOpen() => "It is {$cycle->state->label()}.",
                isset($fields['ends_on']) => array_values(
                    CycleDates::faults(
                        $cycle->name,
                        $cycle->starts_on->toDateString(),
                        $fields['ends_on'],
                        $cycle->milestone?->due_on->toDateString(),
                        (string) $cycle->milestone?->name,
                    ),
                )[0] ?? null,
                default => null,
            };
            if (null !== $why) {
                $refused[] = new RefusedEntry($cycle->id, $cycle->key, $cycle->name, $why);

                continue;
            }
            $before[$cycle->id] = ['ends_on' => $cycle->ends_on->toDateString(), 'build_id' => $cycle->build_id];
            $facts[$cycle->id] = CycleLog::facts($cycle);
            $cycle->fill($fields)->save();
            $after[$cycle->id] = ['ends_on' => $cycle->ends_on->toDateString(), 'build_id' => $cycle->build_id];
        }
        if ([] === $after) {
            return new PlanActResult(null, 'Nothing changed', 0, $refused, []);
        }
        $n = \count($after);
        $title =
            \sprintf(
                '%s %d %s',
                isset($changes['days']) ? ((int) $changes['days'] < 0 ? 'Shortened' : 'Extended') : 'Changed the build of',
                $n,
                1 === $n ? 'cycle' : 'cycles',
            ) .
            (isset($changes['days'])
                ? \sprintf(' by %d %s', abs((int) $changes['days']), 1 === abs((int) $changes['days']) ? 'day' : 'days')
                : '');
        $act = PlanAct::query()->create([
            'project_id' => $project,
            'cycle_id' => null,
            'actor_id' => $user->id,
            'title' => $title,
            'before' => ['cycles' => $before],
            'after' => ['cycles' => $after],
            'created_at' => Carbon::now(),
        ]);
        foreach ($cycles->whereIn('id', array_keys($after)) as $cycle) {
            ($this->log)($cycle, $user, CycleLogKind::Changed, $title, '', $act->id, $facts[$cycle->id]);
        }

        return new PlanActResult($act->id, $title, $n, $refused, array_keys($after));
    }

    /**
     * Takes an act back; {@see UndoPlanAct} has locked it.
     */
    public function undo(PlanAct $act, User $user): PlanActResult
    {
        $title = $act->undoTitle();
        $refused = [];
        $count = 0;
        foreach (
            Cycle::query()
                ->whereIn('id', array_keys($act->before['cycles']))
                ->lockForUpdate()
                ->get()
            as $cycle
        ) {
            // The database keeps no order of fields.
            if (['ends_on' => $cycle->ends_on->toDateString(), 'build_id' => $cycle->build_id] != $act->after['cycles'][$cycle->id]) {
                $refused[] = new RefusedEntry($cycle->id, $cycle->key, $cycle->name, 'It was changed again since.');

                continue;
            }
            $facts = CycleLog::facts($cycle);
            $cycle->fill($act->before['cycles'][$cycle->id])->save();
            ($this->log)($cycle, $user, CycleLogKind::Undone, $title, before: $facts);
            $count++;
        }

        return new PlanActResult(null, $title, $count, $refused, []);
    }
}
