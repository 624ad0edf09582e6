<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Actions;

use Illuminate\Database\Eloquent\Collection as Models;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Setup\Data\EnvironmentInput;
use LucidStep\App\Areas\Setup\Queries\SetupState;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Environment;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Problems\InUse;
use LucidStep\App\Support\Revisions\Seen;
use LucidStep\Core\Evidence\HandsetAddress;

/**
 * Replaces the environments of a project. One that a cycle is planned for, or that something was walked on, stays.
 */
final readonly class SaveEnvironments
{
    public function __construct(private PublishChange $publish) {}

    /**
     * @param  list<EnvironmentInput>  $environments in order
     * @param  ?string  $seen the state that the person saw ({@see Seen})
     * @param  list<string>  $former ids of those that come back
     *
     * @throws ValidationException by the field of what cannot be: a name twice, an address that cannot be framed, an unknown build
     * @throws InUse when one that is used would go
     */
    public function __invoke(Project $project, array $environments, ?string $seen, array $former = []): void
    {
        Project::query()->lockForUpdate()->findOrFail($project->id);
        $known = Environment::query()->where('project_id', $project->id)->orderBy('position')->get()->keyBy('id');
        Seen::check($seen, SetupState::environments($known), 'the environments');
        $this->check($project, $environments, [...$known->keys()->all(), ...$former]);
        $stay = array_filter(array_column($environments, 'id'));
        $this->remove($known->except($stay));
        // Two may exchange their names: what is renamed makes room first.
        Environment::query()
            ->whereKey($stay)
            ->update(['name' => DB::raw("'-' || id")]);
        Environment::query()->upsert(
            array_map(
                static fn(EnvironmentInput $one, int $at): array => [
                    'id' => $one->id ?? (string) Str::uuid7(),
                    'project_id' => $project->id,
                    'name' => $one->name,
                    'address' => $one->address,
                    'build_id' => $one->buildId,
                    'notes' => $one->notes,
                    'observed' => $one->observed,
                    'position' => $at + 1,
                ],
                $environments,
                array_keys($environments),
            ),
            ['id'],
            ['name', 'address', 'build_id', 'notes', 'observed', 'position'],
        );
        ($this->publish)($project->id, 'setup', $project->id);
    }

    /**
     * @param  list<EnvironmentInput>  $environments
     * @param  list<array-key>  $known ids
     *
     * @throws ValidationException
     */
    private function check(Project $project, array $environments, array $known): void
    {
        $builds = Build::query()
            ->where('project_id', $project->id)
            ->whereKey(array_filter(array_column($environments, 'buildId')))
            ->pluck('id')
            ->all();
        $errors = $names = $ids = [];
        foreach ($environments as $at => $one) {
            $field = "environments.{$at}";
            $folded = mb_strtolower($one->name);
            if (\in_array($folded, $names, true)) {
                $errors["{$field}.name"] = "Another one is called “{$one->name}”.";
            }
            if (null !== $one->id && (!\in_array($one->id, $known, true) || \in_array($one->id, $ids, true))) {
                $errors["{$field}.id"] = 'This environment is not there any more.';
            }
            if ($one->observed && '' === $one->address) {
                $errors["{$field}.address"] = 'Say at which address it is observed.';
            }
            if ('' !== $one->address) {
                try {
                    HandsetAddress::of($one->name, $one->address, (string) config('app.url'));
                } catch (\DomainException $e) {
                    $errors["{$field}.address"] = $e->getMessage();
                }
            }
            if (null !== $one->buildId && !\in_array($one->buildId, $builds, true)) {
                $errors["{$field}.build_id"] = 'This build is not there any more.';
            }
            $names[] = $folded;
            $ids[] = $one->id;
        }
        if ([] !== $errors) {
            throw ValidationException::withMessages($errors);
        }
    }

    /**
     * @param  Models<int, Environment>  $gone
     *
     * @throws InUse
     */
    private function remove(Models $gone): void
    {
        $uses = [];
        foreach (['cycles' => 'cycle', 'attempts' => 'attempt'] as $table => $word) {
            $counts = DB::table($table)
                ->whereIn('environment_id', $gone->modelKeys())
                ->groupBy('environment_id')
                ->pluck(DB::raw('count(*) as n'), 'environment_id');
            foreach ($counts as $id => $n) {
                $uses[$id][] = "{$n} " . Str::plural($word, (int) $n);
            }
        }
        foreach ($uses as $id => $of) {
            throw InUse::stays((string) $gone->find($id)?->name, 'it is used by ' . implode(', ', $of));
        }
        Environment::query()->whereKey($gone->modelKeys())->delete();
    }
}
