<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Casebook\Queries\CaseFilter;
use LucidStep\App\Areas\Casebook\Queries\FolderPaths;
use LucidStep\App\Models\Folder;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Revisions\Seen;
use LucidStep\Core\Access\Role;

/**
 * Makes, names, moves and bins folders.
 */
final readonly class SaveFolders
{
    private const DEEPEST = 12;

    public function __construct(private PublishChange $announce, private BulkEditCases $acts) {}

    public function make(Project $project, string $name, ?string $parent): Folder
    {
        $this->check($project, null, $name, $parent);
        $position = 1 + (int) Folder::query()->where('project_id', $project->id)->where('parent_id', $parent)->max('position');
        $folder = Folder::query()->create([
            'project_id' => $project->id,
            'parent_id' => $parent,
            'name' => trim($name),
            'position' => $position,
        ]);
        ($this->announce)($project->id, 'case', $folder->id);

        return $folder;
    }

    /**
     * @param  ?string  $before the folder it goes in front of; null: last
     * @param  ?string  $seen the name that the person saw, where they give another ({@see Seen})
     */
    public function change(
        Project $project,
        Folder $folder,
        string $name,
        ?string $parent,
        ?string $before,
        bool $moves,
        ?string $seen,
    ): void {
        $folder = Folder::query()->lockForUpdate()->findOrFail($folder->id);
        if (trim($name) !== $folder->name) {
            Seen::check($seen, $folder->name, 'the name of this folder');
        }
        $parent = $moves ? $parent : $folder->parent_id;
        $this->check($project, $folder, $name, $parent);
        $folder->update(['name' => trim($name), 'parent_id' => $parent]);
        if ($moves) {
            $order = Folder::query()
                ->where('project_id', $project->id)
                ->where('parent_id', $parent)
                ->where('id', '<>', $folder->id)
                ->orderBy('position')
                ->pluck('id')
                ->all();
            $at = null === $before ? false : array_search($before, $order, true);
            array_splice($order, false === $at ? \count($order) : (int) $at, 0, [$folder->id]);
            DB::update('update folders set position = o.at from unnest(?::uuid[]) with ordinality o(id, at) where folders.id = o.id', [
                '{' . implode(',', $order) . '}',
            ]);
        }
        ($this->announce)($project->id, 'case', $folder->id);
    }

    /**
     * Bins a folder with those below it and the cases in them; cases being walked stay, and so does the folder then.
     *
     * @return ?string the act that undoes it; null when there were no cases in it
     */
    public function bin(Project $project, User $user, Role $role, Folder $folder): ?string
    {
        $ids = (new FolderPaths($project))->below($folder->id);
        $cases = array_map(strval(...), DB::table('cases')->whereIn('folder_id', $ids)->whereNull('binned_at')->pluck('id')->all());
        $done = null;
        if ([] !== $cases) {
            $done = $this->acts->do($project, $user, $role, 'bin', CaseFilter::from($project, ['ids' => implode(',', $cases)]), []);
            if ([] !== $done->refused) {
                throw ValidationException::withMessages([
                    'folder' => array_map(static fn($r): string => "{$r->key}: {$r->why}", $done->refused),
                ]);
            }
        }
        Folder::query()
            ->whereIn('id', $ids)
            ->update(['binned_at' => Carbon::now()]);
        ($this->announce)($project->id, 'case', $folder->id);

        return $done?->act_id;
    }

    private function check(Project $project, ?Folder $folder, string $name, ?string $parent): void
    {
        $name = trim($name);
        if ('' === $name || mb_strlen($name) > 120) {
            throw ValidationException::withMessages(['name' => '' === $name ? 'A folder needs a name.' : 'At most 120 characters.']);
        }
        $folders = new FolderPaths($project);
        if (null !== $parent && [] === $folders->path($parent)) {
            throw ValidationException::withMessages(['parent_id' => 'The folder around it is gone.']);
        }
        if (null !== $folder && null !== $parent && \in_array($parent, $folders->below($folder->id), true)) {
            throw ValidationException::withMessages(['parent_id' => 'A folder cannot go into itself.']);
        }
        $deep = \count($folders->path($parent)) + 1;
        if ($deep > self::DEEPEST) {
            throw ValidationException::withMessages(['parent_id' => \sprintf('Folders stand at most %d deep.', self::DEEPEST)]);
        }
        $same = $folders->find([...$folders->path($parent), $name]);
        if (null !== $same && $same !== $folder?->id) {
            throw ValidationException::withMessages(['name' => "There is a folder \"{$name}\" here already."]);
        }
    }
}
