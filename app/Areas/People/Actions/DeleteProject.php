<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Actions;

use Illuminate\Contracts\Filesystem\Filesystem;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Evidence\Actions\DropFiles;
use LucidStep\App\Areas\Evidence\Queries\FileUse;
use LucidStep\App\Areas\People\Exceptions\NotArchived;
use LucidStep\App\Areas\People\Jobs\DeleteProjectRows;
use LucidStep\App\Models\Invitation;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\StoredFile;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Transactions;

/**
 * Deletes an archived project with everything in it. Asking takes everybody out at once; the rows and files go in the background,
 * and what stays is that it was there, who deleted it, and when.
 */
final readonly class DeleteProject
{
    public function __construct(private Filesystem $files, private DropFiles $drop) {}

    /**
     * @param  string  $name of the project, typed to be sure
     *
     * @throws NotArchived         when it is still running
     * @throws ValidationException when it is called otherwise
     */
    public function ask(Project $project, User $by, string $name): void
    {
        Transactions::run(static function () use ($project, $by, $name): void {
            $project = Project::query()->lockForUpdate()->findOrFail($project->id);
            throw_if(null === $project->archived_at, NotArchived::project($project->name));
            if (trim($name) !== $project->name) {
                throw ValidationException::withMessages(['name' => "Type the name as it stands: {$project->name}"]);
            }
            if (null !== $project->deleting_at) {
                return;
            }
            $project->update(['deleting_at' => Carbon::now()]);
            Membership::query()->where('project_id', $project->id)->delete();
            Invitation::query()->where('project_id', $project->id)->delete();
            $id = (string) Str::uuid7();
            DB::table('project_deletions')->insert([
                'id' => $id,
                'code' => $project->code,
                'name' => $project->name,
                'actor_id' => $by->id,
                'asked_at' => Carbon::now(),
            ]);
            DeleteProjectRows::dispatch($project->id, $id)->afterCommit();
        });
    }

    /**
     * Takes rows and files away; asked again, it goes on where it stopped.
     *
     * @param  ?string  $deletion what tells of it; null: nothing does
     */
    public function now(string $project, ?string $deletion): void
    {
        $hashes = FileUse::of($project);
        $paths = [
            ...DB::table('case_exports')->where('project_id', $project)->whereNotNull('path')->pluck('path')->all(),
            ...DB::table('case_imports')->where('project_id', $project)->whereNotNull('path')->pluck('path')->all(),
        ];
        DB::transaction(static function () use ($project, $deletion): void {
            DB::statement('select lucid_delete_project(?)', [$project]);
            if (null !== $deletion) {
                DB::table('project_deletions')
                    ->where('id', $deletion)
                    ->update(['done_at' => Carbon::now()]);
            }
        });
        foreach ($paths as $path) {
            $this->files->delete([(string) $path, "{$path}.rows"]);
        }
        foreach (array_chunk($hashes, 500) as $some) {
            StoredFile::query()->whereKey(($this->drop)($some))->delete();
        }
    }
}
