<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Actions;

use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Casebook\Queries\CaseFilter;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\People\OpenCounts;
use LucidStep\App\Support\People\OpenWork;
use LucidStep\Core\Access\Role;

/**
 * Cases that somebody looks after: questions about them go to their owner.
 */
final readonly class HandOverCases implements OpenWork
{
    public function __construct(private BulkEditCases $change) {}

    public function noun(): array
    {
        return ['case owned', 'cases owned'];
    }

    public function needsTester(): bool
    {
        return true;
    }

    public function counts(Project $project): array
    {
        return OpenCounts::by(self::owned($project), 'owner_id');
    }

    public function handOver(Project $project, User $from, ?User $to, User $by): void
    {
        $ids = self::owned($project)->where('owner_id', $from->id)->pluck('id')->map(strval(...))->all();
        foreach (array_chunk($ids, BulkEditCases::MOST) as $some) {
            $these = CaseFilter::from($project, ['ids' => implode(',', $some)]);
            $this->change->do($project, $by, Role::Lead, 'edit', $these, ['owner_id' => $to?->id]);
        }
    }

    private static function owned(Project $project): Builder
    {
        return DB::table('cases')->where('project_id', $project->id)->whereNull('binned_at')->whereNotNull('owner_id');
    }
}
