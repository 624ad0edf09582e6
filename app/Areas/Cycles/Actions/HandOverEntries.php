<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Actions;

use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Cycles\EntryChanges\AssignEntriesTo;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\People\OpenCounts;
use LucidStep\App\Support\People\OpenWork;
use LucidStep\Core\Planning\CycleState;
use LucidStep\Core\Verdict\EntryState;

/**
 * Entries that are not done, in cycles that still run or are planned.
 */
final readonly class HandOverEntries implements OpenWork
{
    public function __construct(private BulkEditEntries $change) {}

    public function noun(): array
    {
        return ['entry', 'entries'];
    }

    public function needsTester(): bool
    {
        return true;
    }

    public function counts(Project $project): array
    {
        return OpenCounts::by(self::open($project), 'assignee_id');
    }

    public function handOver(Project $project, User $from, ?User $to, User $by): void
    {
        $open = self::open($project)
            ->where('assignee_id', $from->id)
            ->orderBy('cycle_id')
            ->get(['entries.id', 'cycle_id']);
        foreach ($open->groupBy('cycle_id') as $cycle => $entries) {
            ($this->change)(
                Cycle::query()->findOrFail($cycle),
                $by,
                new AssignEntriesTo($to?->id),
                array_values(array_map(strval(...), $entries->pluck('id')->all())),
                "{$from->name} left the project",
            );
        }
        $cycles = Cycle::query()->where('project_id', $project->id);
        (clone $cycles)->where('default_assignee_id', $from->id)->update(['default_assignee_id' => $to?->id]);
        DB::table('cycle_people')
            ->whereIn('cycle_id', $cycles->whereNotIn('state', [CycleState::Closed, CycleState::Abandoned])->select('id'))
            ->where('user_id', $from->id)
            ->delete();
    }

    private static function open(Project $project): Builder
    {
        return DB::table('entries')
            ->join('cycles', 'cycles.id', '=', 'cycle_id')
            ->where('cycles.project_id', $project->id)
            ->whereNotIn('cycles.state', [CycleState::Closed->value, CycleState::Abandoned->value])
            ->whereNotNull('assignee_id')
            ->whereNotIn('display_state', EntryState::SETTLED);
    }
}
