<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Actions;

use LucidStep\App\Models\Project;

/**
 * Says how much evidence a project keeps, and for how long.
 */
final class SaveStorageLimits
{
    /**
     * @param  ?int  $limit in MB; null: as much as there is room for
     * @param  ?int  $days  after which evidence goes; null: never
     */
    public function __invoke(Project $project, ?int $limit, ?int $days): void
    {
        $project->update(['storage_limit_mb' => $limit, 'retention_days' => $days]);
    }
}
