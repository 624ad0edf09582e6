<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Actions;

use LucidStep\App\Areas\Setup\Queries\SetupState;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Revisions\Seen;

/**
 * Says how much evidence a project keeps, and for how long.
 */
final class SaveStorageLimits
{
    /**
     * @param  ?int  $limit in MB; null: as much as there is room for
     * @param  ?int  $days  after which evidence goes; null: never
     * @param  ?string  $seen the state that the person saw ({@see Seen})
     */
    public function __invoke(Project $project, ?int $limit, ?int $days, ?string $seen): void
    {
        Project::query()->lockForUpdate()->findOrFail($project->id);
        $project->refresh();
        Seen::check($seen, SetupState::storage($project), 'the limits');
        $project->update(['storage_limit_mb' => $limit, 'retention_days' => $days]);
    }
}
