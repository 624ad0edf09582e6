<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Evidence\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\StoredFile;

/**
 * The files that cases and routines of a project show.
 */
final class ProjectFiles
{
    public function find(string $project, string $sha256): ?StoredFile
    {
        return null === $this->row($project, $sha256) ? null : StoredFile::query()->find($sha256);
    }

    /**
     * @return ?\stdClass the project's row of it, with the regions that comparisons leave out
     */
    public function row(string $project, string $sha256): ?\stdClass
    {
        return DB::table('project_files')->where('project_id', $project)->where('sha256', $sha256)->first();
    }
}
