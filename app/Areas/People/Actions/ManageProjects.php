<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Transactions;
use LucidStep\Core\Access\Role;

/**
 * Projects are made, archived and taken up again by owners of the installation.
 */
final class ManageProjects
{
    /** What a project made like another takes over, beside its policies and calendar and its axes. */
    private const COPIED = [
        'list_items' => ['list', 'value', 'name', 'weight', 'position'],
        'custom_fields' => ['name', 'kind', 'choices', 'required', 'subject', 'position'],
    ];

    /**
     * Makes a project, of which the owner is the first admin.
     *
     * @param  ?Project  $like whose lists, policies, axes, fields and calendar it begins with
     *
     * @throws ValidationException when the code is taken
     */
    public function make(User $owner, string $code, string $name, string $zone, ?Project $like): Project
    {
        return Transactions::run(function () use ($owner, $code, $name, $zone, $like): Project {
            if (Project::query()->where('code', $code)->exists()) {
                throw ValidationException::withMessages([
                    'code' => "{$code} is taken. Every key of the project begins with it: choose another.",
                ]);
            }
            $project = Project::query()
                ->create([
                    'code' => $code,
                    'name' => $name,
                    'time_zone' => $zone,
                    'policies' => $like->policies ?? [],
                    'access' => $like->access ?? [],
                    ...null === $like ? [] : ['working_days' => $like->working_days, 'holidays' => $like->holidays],
                ])
                ->refresh();
            Membership::query()->create(['project_id' => $project->id, 'user_id' => $owner->id, 'role' => Role::Admin]);
            if (null !== $like) {
                self::copyLists($like, $project);
                self::copyAxes($like, $project);
            }

            return $project;
        });
    }

    /**
     * A project to make another like, which one must know from within.
     *
     * @throws ValidationException when one leads no such project
     */
    public function known(User $owner, string $id): Project
    {
        $found = Project::query()
            ->whereKey($id)
            ->whereHas('memberships', static fn($m) => $m->where('user_id', $owner->id)->whereIn('role', [Role::Admin, Role::Lead]))
            ->first();

        return $found ?? throw ValidationException::withMessages(['like' => 'Choose a project that you lead.']);
    }

    public function archive(Project $project): void
    {
        Project::query()
            ->whereKey($project->id)
            ->whereNull('archived_at')
            ->update(['archived_at' => Carbon::now()]);
    }

    public function restore(Project $project): void
    {
        $project->update(['archived_at' => null]);
    }

    private static function copyLists(Project $from, Project $to): void
    {
        foreach (self::COPIED as $table => $columns) {
            $rows = DB::table($table)->where('project_id', $from->id)->get($columns);
            DB::table($table)->insert(
                $rows
                    ->map(static fn(\stdClass $r): array => [...(array) $r, 'id' => (string) Str::uuid7(), 'project_id' => $to->id])
                    ->all(),
            );
        }
    }

    private static function copyAxes(Project $from, Project $to): void
    {
        $new = [];
        $copy = static function (string $table, array $rows, string $parent) use (&$new): void {
            DB::table($table)->insert(
                array_map(static function (\stdClass $r) use (&$new, $parent): array {
                    $new[$r->id] = (string) Str::uuid7();

                    return [...(array) $r, 'id' => $new[$r->id], $parent => $new[$r->{$parent}] ?? null];
                }, $rows),
            );
        };
        $new[$from->id] = $to->id;
        $copy('axes', DB::table('axes')->where('project_id', $from->id)->get()->all(), 'project_id');
        $values = DB::table('axis_values')->whereIn('axis_id', array_keys($new))->get()->all();
        $copy('axis_values', $values, 'axis_id');
        $pairs = DB::table('forbidden_pairs')
            ->whereIn('value_id', array_column($values, 'id'))
            ->get()
            ->map(static fn(\stdClass $p): array => [...(array) $p, 'value_id' => $new[$p->value_id], 'other_id' => $new[$p->other_id]]);
        DB::table('forbidden_pairs')->insert($pairs->all());
    }
}
