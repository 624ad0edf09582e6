<?php

declare(strict_types=1);

namespace LucidStep\Tests\Support;

use Illuminate\Support\Carbon;
use Illuminate\Support\Str;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\CaseVersion;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\EntryCondition;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\Step;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Keys\NextKey;
use LucidStep\Core\Access\Role;

/**
 * A small project with people, a cycle and entries, for tests.
 */
final class World
{
    public readonly Project $project;

    public readonly Cycle $cycle;

    public readonly Build $build;

    /** @var array<string, User> */
    private array $people = [];

    public function __construct(string $code = 'TST')
    {
        $this->project = Project::query()
            ->create(['code' => $code, 'name' => "Project {$code}", 'time_zone' => 'UTC', 'policies' => []])
            ->refresh();
        $this->build = Build::query()->create(['project_id' => $this->project->id, 'name' => '1.0', 'position' => 1]);
        (new NextKey())->reserve($this->project, 'cycle');
        $this->cycle = Cycle::query()
            ->create([
                'project_id' => $this->project->id,
                'number' => 1,
                'key' => "{$code}-R1",
                'name' => 'A cycle',
                'build_id' => $this->build->id,
                'starts_on' => Carbon::now()->subDay(),
                'ends_on' => Carbon::now()->addDay(),
                'state' => 'released',
            ])
            ->refresh();
    }

    public function person(string $name = 'tester', Role $role = Role::Tester): User
    {
        return $this->people[$name] ??= $this->make($name, $role);
    }

    public function lead(): User
    {
        return $this->person('lead', Role::Lead);
    }

    /**
     * An entry of a new case.
     *
     * @param  array<string, mixed>  $fields
     */
    public function entry(?User $assignee = null, int $steps = 3, array $fields = []): Entry
    {
        $case = $this->case($steps);

        return Entry::query()
            ->create([
                'project_id' => $this->project->id,
                'cycle_id' => $this->cycle->id,
                'case_id' => $case->id,
                'case_version_id' => $case->version_id,
                'position' => Entry::query()->where('cycle_id', $this->cycle->id)->count() + 1,
                'assignee_id' => $assignee?->id,
                ...$fields,
            ])
            ->refresh();
    }

    public function case(int $steps = 3): TestCase
    {
        $number = (new NextKey())->reserve($this->project, 'case');
        $version = (string) Str::uuid7();
        $case = TestCase::query()->create([
            'project_id' => $this->project->id,
            'number' => $number,
            'key' => "{$this->project->code}-C{$number}",
            'title' => "Case {$number}",
            'version_id' => $version,
            'position' => $number,
            'steps_count' => $steps,
        ]);
        CaseVersion::query()->create([
            'id' => $version,
            'case_id' => $case->id,
            'number' => 1,
            'title' => $case->title,
            'created_at' => Carbon::now(),
        ]);
        for ($i = 1; $i <= $steps; $i++) {
            Step::query()->create([
                'case_version_id' => $version,
                'position' => $i,
                'action' => "Do {$i}",
                'data' => "data {$i}",
                'expected' => "See {$i}",
            ]);
        }

        return $case->refresh();
    }

    public function needs(Entry $entry, Entry $needed, string $kind): void
    {
        EntryCondition::query()->insert(['entry_id' => $entry->id, 'needs_id' => $needed->id, 'kind' => $kind]);
    }

    /**
     * @param  array<string, mixed>  $policies
     */
    public function policies(array $policies): void
    {
        $this->project->update(['policies' => $policies]);
    }

    private function make(string $name, Role $role): User
    {
        $user = User::query()
            ->create([
                'name' => ucfirst($name),
                'email' => strtolower("{$name}@{$this->project->code}.test"),
                'password' => 'a long password',
            ])
            ->refresh();
        Membership::query()->create(['project_id' => $this->project->id, 'user_id' => $user->id, 'role' => $role]);

        return $user;
    }
}
