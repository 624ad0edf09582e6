<?php

declare(strict_types=1);

namespace LucidStep\Tests\Support;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Configuration;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\Milestone;
use LucidStep\App\Models\Release;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Keys\NextKey;

/**
 * Requirements with linked cases, walked on two builds, with a configuration and a milestone.
 */
abstract class CoverageTestCase extends FeatureTestCase
{
    use Walks;

    protected User $lead;

    protected Release $release;

    protected Build $newer;

    protected Configuration $phone;

    protected Milestone $milestone;

    protected function setUp(): void
    {
        parent::setUp();
        $this->lead = $this->world->lead();
        $project = ['project_id' => $this->world->project->id];
        $this->release = Release::query()->create([...$project, 'name' => '2', 'position' => 1]);
        $this->newer = Build::query()->create([...$project, 'name' => '2.0', 'position' => 2, 'release_id' => $this->release->id]);
        $this->phone = Configuration::query()->create([...$project, 'name' => 'Phone', 'position' => 1]);
        $this->milestone = Milestone::query()->create([...$project, 'name' => 'Opens', 'type' => 'release', 'due_on' => '2027-06-01']);
    }

    protected function requirement(string $title, ?string $parent = null): string
    {
        return (string) $this->as($this->lead, 'POST', '/projects/TST/requirements', ['title' => $title, 'parent_id' => $parent])
            ->assertCreated()
            ->json('id');
    }

    /**
     * An entry of a new case that is linked.
     *
     * @param  list<string>  $requirements
     */
    protected function linked(array $requirements): Entry
    {
        $entry = $this->world->entry($this->lead, 3, ['configuration_id' => null]);
        foreach ($requirements as $id) {
            DB::table('case_requirements')->insert(['case_id' => $entry->case_id, 'requirement_id' => $id]);
        }

        return $entry;
    }

    /**
     * The same case in a cycle of its own.
     */
    protected function elsewhere(Entry $entry, Build $build, ?Configuration $configuration, ?Milestone $milestone = null): Entry
    {
        $milestone = \func_num_args() > 3 ? $milestone : $this->milestone;
        $number = (new NextKey())->reserve($this->world->project, 'cycle');
        $cycle = Cycle::query()->create([
            'project_id' => $this->world->project->id,
            'number' => $number,
            'key' => "TST-R{$number}",
            'name' => "Cycle {$number}",
            'build_id' => $build->id,
            'milestone_id' => $milestone?->id,
            'starts_on' => '2026-11-01',
            'ends_on' => '2027-11-30',
            'state' => 'released',
        ]);

        return Entry::query()
            ->create([
                ...array_intersect_key(
                    $entry->getAttributes(),
                    array_flip(['project_id', 'case_id', 'case_version_id', 'rounds', 'assignee_id']),
                ),
                'row_ids' => $entry->row_ids,
                'cycle_id' => $cycle->id,
                'configuration_id' => $configuration?->id,
                'position' => 1,
            ])
            ->refresh();
    }

    /**
     * @return array<string, array<string, mixed>> by title
     */
    protected function rows(string $lens = ''): array
    {
        return array_column(
            (array) $this->as($this->lead, 'GET', "/projects/TST/coverage?{$lens}")
                ->assertOk()
                ->json('rows'),
            null,
            'title',
        );
    }

    /**
     * @param  array<string, mixed>  $row
     *
     * @return list<mixed>
     */
    protected function told(array $row): array
    {
        return [$row['state'], $row['cases'], $row['walked'], $row['own_cases']];
    }
}
