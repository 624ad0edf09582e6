<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Evidence\Actions;

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\StoredFile;
use LucidStep\App\Models\User;

/**
 * Keeps a picture or a text that cases and routines of a project show.
 */
final readonly class StoreProjectFile
{
    public function __construct(private StoreFile $store) {}

    public function __invoke(Project $project, User $user, UploadedFile $upload): StoredFile
    {
        $file = ($this->store)($upload);
        DB::table('project_files')->insertOrIgnore([
            'project_id' => $project->id,
            'sha256' => $file->sha256,
            'added_by_id' => $user->id,
            'created_at' => Carbon::now(),
        ]);

        return $file;
    }
}
