<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Actions;

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\Release;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Problems\Conflict;
use LucidStep\App\Support\Problems\InUse;

/**
 * Releases with their builds. What is tested somewhere stays.
 */
final readonly class SaveReleases
{
    public function __construct(private PublishChange $announce) {}

    /**
     * @param  ?string  $former the id of one that comes back
     */
    public function release(Project $project, string $name, ?Release $release = null, ?string $former = null): Release
    {
        $name = $this->free(Release::class, $project, $name, $release?->id);
        $release ??= new Release([
            ...null === $former ? [] : ['id' => $former],
            'project_id' => $project->id,
            'position' => 1 + (int) Release::query()->where('project_id', $project->id)->max('position'),
        ]);
        $release->fill(['name' => $name])->save();
        ($this->announce)($project->id, 'setup', $release->id);

        return $release;
    }

    /**
     * @param  ?string  $former the id of one that comes back
     */
    public function build(Project $project, string $name, ?string $release, ?Build $build = null, ?string $former = null): Build
    {
        $name = $this->free(Build::class, $project, $name, $build?->id);
        if (null !== $release && !Release::query()->where('project_id', $project->id)->whereKey($release)->exists()) {
            throw ValidationException::withMessages(['release_id' => 'There is no such release.']);
        }
        $build ??= new Build([
            ...null === $former ? [] : ['id' => $former],
            'project_id' => $project->id,
            'position' => 1 + (int) Build::query()->where('project_id', $project->id)->max('position'),
        ]);
        $build->fill(['name' => $name, 'release_id' => $release])->save();
        ($this->announce)($project->id, 'setup', $build->id);

        return $build;
    }

    /**
     * @throws Conflict when it still has builds
     */
    public function removeRelease(Release $release): void
    {
        $builds = Build::query()->where('release_id', $release->id)->count();
        if ($builds > 0) {
            throw InUse::stays($release->name, "it has {$builds} " . Str::plural('build', $builds));
        }
        $release->delete();
        ($this->announce)($release->project_id, 'setup', $release->id);
    }

    /**
     * @throws Conflict when something was or is to be tested on it
     */
    public function removeBuild(Build $build): void
    {
        $uses = [];
        foreach (
            [
                'cycles' => ['build_id', 'cycle'],
                'attempts' => ['build_id', 'attempt'],
                'defects' => ['build_id', 'defect'],
                'environments' => ['build_id', 'environment'],
            ]
            as $table => [$column, $word]
        ) {
            $n = DB::table($table)
                ->where($column, $build->id)
                ->when('defects' === $table, static fn($q) => $q->orWhere('fixed_build_id', $build->id))
                ->count();
            if ($n > 0) {
                $uses[] = 1 === $n ? "1 {$word}" : "{$n} {$word}s";
            }
        }
        if ([] !== $uses) {
            throw InUse::stays($build->name, 'it is used by ' . implode(', ', $uses));
        }
        $build->delete();
        ($this->announce)($build->project_id, 'setup', $build->id);
    }

    /**
     * @param  class-string<Release>|class-string<Build>  $class
     */
    private function free(string $class, Project $project, string $name, ?string $but): string
    {
        $name = trim($name);
        $taken = $class
            ::query()
            ->where('project_id', $project->id)
            ->where('name', $name)
            ->when(null !== $but, static fn($q) => $q->whereKeyNot($but))
            ->exists();
        if ('' === $name || $taken) {
            throw ValidationException::withMessages(['name' => '' === $name ? 'A name is needed.' : "“{$name}” is there already."]);
        }

        return $name;
    }
}
