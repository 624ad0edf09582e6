<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Evidence\Actions;

use Illuminate\Support\Facades\DB;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Models\Project;

/**
 * Says which parts of a reference picture a comparison leaves out.
 */
final class IgnoreRegions
{
    /**
     * @param  list<array{x: int, y: int, width: int, height: int}>  $regions
     */
    public function __invoke(Project $project, string $reference, array $regions): void
    {
        if (
            0 ===
            DB::table('project_files')
                ->where('project_id', $project->id)
                ->where('sha256', $reference)
                ->update(['ignored' => json_encode($regions, \JSON_THROW_ON_ERROR)])
        ) {
            throw ValidationException::withMessages(['regions' => 'This picture is not there any more.']);
        }
    }
}
