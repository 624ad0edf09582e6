<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Today\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Today\Data\FirstSteps;
use LucidStep\App\Models\Invitation;
use LucidStep\App\Models\Project;
use LucidStep\Core\Planning\CycleState;

/**
 * Reads how far a project has come that has not released a cycle yet: in one query.
 */
final class ReadFirstSteps
{
    /**
     * @return ?FirstSteps null once a cycle was released
     */
    public function __invoke(Project $project): ?FirstSteps
    {
        $of = static fn(string $table): \Illuminate\Database\Query\Builder => DB::table($table)
            ->selectRaw('count(*)')
            ->where("{$table}.project_id", $project->id);
        $planned = CycleState::planned();
        $found = DB::query()
            ->selectSub($of('cases')->whereNull('binned_at'), 'cases')
            ->selectSub($of('builds'), 'builds')
            ->selectSub($of('memberships'), 'people')
            ->selectSub(Invitation::open()->where('project_id', $project->id)->selectRaw('count(*)'), 'invited')
            ->selectSub($of('cycles')->whereIn('state', $planned), 'cycles')
            ->selectSub($of('cycles')->whereNotIn('state', $planned), 'released')
            ->selectSub($of('entries'), 'entries')
            ->first();

        return null === $found || $found->released > 0
            ? null
            : new FirstSteps($found->cases, $found->builds, $found->people, $found->invited, $found->cycles, $found->entries);
    }
}
