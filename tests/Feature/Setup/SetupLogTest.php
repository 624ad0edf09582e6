<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Setup;

use Illuminate\Database\QueryException;
use Illuminate\Routing\Route as Path;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Route;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * What changes in the setup, in policies and in milestones is told, whoever changes it and in whatever way.
 */
final class SetupLogTest extends FeatureTestCase
{
    /** Writes in the areas that set a project up and change nothing of it. */
    private const CHANGE_NOTHING = [
        'POST projects/{project}/axis-checks',
        'POST milestones/{milestone}/clone-previews',
        'POST projects/{project}/setup-log/{setupAct}/removals',
    ];

    private User $admin;

    protected function setUp(): void
    {
        parent::setUp();
        $this->admin = $this->world->person('corin', Role::Admin);
    }

    public function test_every_way_to_change_the_setup_is_told_with_who_did_it(): void
    {
        $open = array_diff($this->ways(), self::CHANGE_NOTHING);
        self::assertGreaterThan(20, count($open));
        foreach ($this->changes() as $way => [$path, $body, $line]) {
            self::assertContains($way, $open, 'no such way');
            $before = $this->newest();
            $this->as($this->admin, (string) strtok($way, ' '), $path, $body)->assertSuccessful();
            $now = $this->newest();
            self::assertNotSame($before['id'], $now['id'], "{$way} is not told");
            self::assertSame($this->admin->id, $now['by']['id'] ?? null, $way);
            self::assertContains($line, $now['lines'], $way);
            $open = array_diff($open, [$way]);
        }
        self::assertSame([], array_values($open), 'not gone through');
    }

    public function test_whatever_can_be_undone_is_as_it_was_afterwards_and_told_as_an_act_of_its_own(): void
    {
        $undone = [];
        foreach ($this->changes() as $way => [$path, $body]) {
            $before = $this->shown();
            $this->as($this->admin, (string) strtok($way, ' '), $path, $body)->assertSuccessful();
            $act = $this->newest();
            if (!$act['may_undo']) {
                $this->as($this->admin, 'POST', "/projects/TST/setup-log/{$act['id']}/undo")
                    ->assertConflict()
                    ->assertJsonPath('type', 'urn:lucid-step:problem:undone-elsewhere');

                continue;
            }
            $after = $this->shown();
            $done = $this->as($this->admin, 'POST', "/projects/TST/setup-log/{$act['id']}/undo");
            self::assertSame(200, $done->getStatusCode(), "{$way}: {$done->json('detail')}");
            self::assertSame($before, $this->shown(), "{$way} undone");
            $again = $this->newest();
            self::assertSame($this->admin->id, $again['by']['id'] ?? null);
            self::assertFalse($this->acts()[(int) $act['id']]['may_undo'], "{$way} is undone once");
            $this->as($this->admin, 'POST', "/projects/TST/setup-log/{$act['id']}/undo")
                ->assertConflict()
                ->assertJsonPath('type', 'urn:lucid-step:problem:setup-changed');
            $undone[] = $way;
            // What undoes is undone as well, so that the ways that follow find what they need.
            $again['may_undo']
                ? $this->as($this->admin, 'POST', "/projects/TST/setup-log/{$again['id']}/undo")->assertOk()
                : $this->as($this->admin, (string) strtok($way, ' '), $path, $body)->assertSuccessful();
            self::assertSame($after, $this->shown(), "{$way} done again");
        }
        self::assertGreaterThan(16, count($undone), implode("\n", $undone));
    }

    public function test_what_was_changed_since_stays_and_what_others_changed_beside_it_too(): void
    {
        $lead = $this->world->lead();
        $put = fn(array $body): mixed => $this->as($lead, 'PUT', '/projects/TST/policies', $body)->assertOk();
        $put(['only_assignee_records' => true]);
        $first = $this->newest();
        $put(['opening_takes' => true]);
        $this->as($lead, 'POST', "/projects/TST/setup-log/{$first['id']}/undo")->assertOk();
        $policies = $this->as($lead, 'GET', '/projects/TST/walk-setup')->json('policies');
        self::assertSame([false, true], [$policies['only_assignee_records'], $policies['opening_takes']]);
        $put(['only_assignee_records' => true]);
        $second = $this->newest();
        $put(['only_assignee_records' => false]);
        self::assertFalse($this->acts()[(int) $second['id']]['may_undo']);
        // A list: what came in since stays, and what was taken out comes back in its place, with the value it had.
        $phases = $this->as($lead, 'GET', '/projects/TST/lists')->json('phases');
        $list = fn(array $items): mixed => $this->as($lead, 'PUT', '/projects/TST/lists/phases', ['items' => $items])->assertOk();
        $list([['name' => 'A first'], ...array_slice($phases, 1)]);
        $gone = $this->newest();
        $list([...$this->as($lead, 'GET', '/projects/TST/lists')->json('phases'), ['name' => 'Rehearsal']]);
        $this->as($lead, 'POST', "/projects/TST/setup-log/{$gone['id']}/undo")->assertOk();
        $now = $this->as($lead, 'GET', '/projects/TST/lists')->json('phases');
        self::assertSame([...array_column($phases, 'value'), 'rehearsal'], array_column($now, 'value'));
    }

    public function test_undo_is_refused_as_the_change_would_be(): void
    {
        $lead = $this->world->lead();
        $this->as($this->admin, 'PUT', '/projects/TST/storage', ['limit_mb' => 10])->assertOk();
        $limit = $this->newest()['id'];
        $this->as($lead, 'POST', "/projects/TST/setup-log/{$limit}/undo")->assertForbidden();
        $this->as($this->world->person('t'), 'POST', "/projects/TST/setup-log/{$limit}/undo")->assertForbidden();
        $this->as($lead, 'POST', '/projects/TST/builds', ['name' => '9.1'])->assertCreated();
        $added = $this->newest()['id'];
        $this->world->cycle->update(['build_id' => DB::table('builds')->where('name', '9.1')->value('id')]);
        $this->as($lead, 'POST', "/projects/TST/setup-log/{$added}/undo")
            ->assertConflict()
            ->assertJsonPath('type', 'urn:lucid-step:problem:in-use');
        $this->world->cycle->update(['build_id' => null]);
        // Its name is taken by another meanwhile.
        $build = (string) DB::table('builds')->where('name', '9.1')->value('id');
        $this->as($lead, 'DELETE', "/builds/{$build}")->assertOk();
        $removed = $this->newest()['id'];
        $this->as($lead, 'POST', '/projects/TST/builds', ['name' => '9.1'])->assertCreated();
        $this->as($lead, 'POST', "/projects/TST/setup-log/{$removed}/undo")
            ->assertConflict()
            ->assertJsonPath('detail', 'It cannot be as it was: “9.1” is there already.');
        $this->as($lead, 'POST', '/projects/TST/setup-log/999999999/undo')->assertNotFound();
    }

    /**
     * @return array<int, array<string, mixed>> the log by act
     */
    private function acts(): array
    {
        return array_column((array) $this->as($this->admin, 'GET', '/projects/TST/setup-log')->assertOk()->json('items'), null, 'id');
    }

    /**
     * @return array<string, mixed> what people see of the setup, without what tells one state from another or one row from another
     */
    private function shown(): array
    {
        $pages = [];
        foreach (['lists', 'planning-setup', 'walk-setup'] as $page) {
            $pages[$page] = $this->as($this->admin, 'GET', "/projects/TST/{$page}")
                ->assertOk()
                ->json();
        }
        $plain = static function (array $part) use (&$plain): array {
            $part = array_diff_key($part, array_flip(['seen', 'id', 'release_id', 'environment_id', 'build_id', 'position']));

            return array_map(static fn(mixed $v): mixed => is_array($v) ? $plain($v) : $v, $part);
        };

        return $plain($pages);
    }

    public function test_what_comes_to_nothing_is_not_told_and_order_is_told_once(): void
    {
        $phases = $this->as($this->admin, 'GET', '/projects/TST/lists')->json('phases');
        $put = fn(array $items): array => (array) $this->as($this->admin, 'PUT', '/projects/TST/lists/phases', ['items' => $items])
            ->assertOk()
            ->json('phases');
        $gone = $phases[0]['name'];
        // The first writing is told against what was given.
        $phases = $put([...array_slice($phases, 1), ['name' => 'Dress rehearsal']]);
        $before = $this->newest();
        self::assertSame(
            ['Added phase Dress rehearsal', 'Another order of phases', "Took out phase {$gone}"],
            $this->sorted($before['lines']),
        );
        $put($phases);
        self::assertSame($before, $this->newest());
        $put([['value' => $phases[1]['value'], 'name' => 'Once more'], $phases[0], ...array_slice($phases, 2)]);
        self::assertSame(
            ['Another order of phases', "Phase {$phases[1]['name']} is called Once more"],
            $this->sorted($this->newest()['lines']),
        );
    }

    public function test_it_is_for_leads_windowed_and_its_own_projects(): void
    {
        $lead = $this->world->lead();
        foreach ([Role::Reader, Role::Developer, Role::Tester] as $role) {
            $this->as($this->world->person("a-{$role->value}", $role), 'GET', '/projects/TST/setup-log')->assertForbidden();
        }
        foreach (range(1, 43) as $n) {
            $this->as($lead, 'POST', '/projects/TST/releases', ['name' => "R{$n}"])->assertCreated();
        }
        $first = $this->as($lead, 'GET', '/projects/TST/setup-log')->assertOk();
        self::assertCount(40, (array) $first->json('items'));
        $rest = (array) $this->as($lead, 'GET', '/projects/TST/setup-log?after=' . $first->json('next'))->json('items');
        self::assertSame(
            ['Added release R3', 'Added release R2', 'Added release R1'],
            array_slice(array_column(array_column($rest, 'lines'), 0), 0, 3),
        );
        $this->as($lead, 'GET', '/projects/TST/setup-log?after=never')->assertOk();
        $other = $this->world->person('stranger');
        DB::table('memberships')->where('user_id', $other->id)->delete();
        $this->as($other, 'GET', '/projects/TST/setup-log')->assertNotFound();
    }

    public function test_who_has_the_application_s_rights_cannot_change_it(): void
    {
        $this->as($this->admin, 'POST', '/projects/TST/releases', ['name' => 'R1'])->assertCreated();
        foreach (
            [
                'update setup_log set actor_id = null',
                'delete from setup_log',
                "insert into setup_log (project_id, act, subject, key) select id, '', '', '' from projects",
            ]
            as $sql
        ) {
            DB::beginTransaction();
            try {
                DB::statement($sql);
                self::fail($sql);
            } catch (QueryException $e) {
                self::assertStringContainsString('permission denied', $e->getMessage());
            } finally {
                DB::rollBack();
            }
        }
    }

    /**
     * @return iterable<string, array{string, array<string, mixed>, string}> each way with where, what, and what is said of it
     */
    private function changes(): iterable
    {
        $items = ['items' => [['name' => 'Only one']]];
        $p = '/projects/TST';
        foreach (
            [
                'types' => 'type of case',
                'priorities' => 'priority',
                'milestone-types' => 'type of milestone',
                'phases' => 'phase',
                'components' => 'component',
            ]
            as $list => $is
        ) {
            yield "PUT projects/{project}/lists/{$list}" => ["{$p}/lists/{$list}", $items, "Added {$is} Only one"];
        }
        foreach (['pass', 'fail', 'blocked', 'not-applicable'] as $of) {
            $is = ['blocked' => 'a block', 'not-applicable' => 'not applicable'][$of] ?? "a {$of}";
            yield "PUT projects/{project}/lists/reasons-{$of}" => [
                "{$p}/lists/reasons-{$of}",
                $items,
                "Added reason behind {$is} Only one",
            ];
        }
        yield 'PUT projects/{project}/lists/fields' => [
            "{$p}/lists/fields",
            ['fields' => [['name' => 'Risk', 'kind' => 'text']]],
            'Added field Risk',
        ];
        yield 'PUT projects/{project}/lists/defect-fields' => [
            "{$p}/lists/defect-fields",
            ['fields' => [['name' => 'Found by', 'kind' => 'choice', 'choices' => ['us', 'a guest']]]],
            'Added field Found by',
        ];
        yield 'POST projects/{project}/labels' => ["{$p}/labels", ['names' => ['deck, car']], 'Added label deck, car'];
        yield 'PATCH projects/{project}/labels' => ["{$p}/labels", ['from' => 'deck, car', 'to' => 'cars'], 'Took out label deck, car'];
        yield 'PUT projects/{project}/policies' => [
            "{$p}/policies",
            ['only_assignee_records' => true],
            'Policy “Only the assignee records”: on',
        ];
        yield 'PUT projects/{project}/storage' => ["{$p}/storage", ['limit_mb' => 10], 'MB of evidence at most none → 10'];
        yield 'PUT projects/{project}/calendar' => [
            "{$p}/calendar",
            ['working_days' => [1, 2, 6], 'holidays' => [], 'time_zone' => 'Europe/Berlin'],
            'Working days Mon, Tue, Wed, Thu, Fri → Mon, Tue, Sat',
        ];
        yield 'PUT projects/{project}/people/{person}/capacity' => [
            "{$p}/people/{$this->admin->id}/capacity",
            ['minutes_per_day' => 95, 'days_off' => ['2026-12-24']],
            'Person ' . $this->admin->name . ': days off none → 2026-12-24; minutes a day 360 → 95',
        ];
        yield 'POST projects/{project}/capacity-imports' => [
            "{$p}/capacity-imports",
            ['text' => $this->admin->email . ', 2h'],
            'Person ' . $this->admin->name . ': minutes a day 95 → 120',
        ];
        yield 'PUT projects/{project}/environments' => [
            "{$p}/environments",
            ['environments' => [['name' => 'Staging', 'address' => 'https://staging.example']]],
            'Added environment Staging',
        ];
        $axes = [
            ['name' => 'Device', 'values' => [['name' => 'Phone'], ['name' => 'Desktop']]],
            ['name' => 'Size', 'values' => [['name' => 'big']]],
        ];
        yield 'PUT projects/{project}/axes' => [
            "{$p}/axes",
            ['axes' => $axes, 'forbidden' => [['axis' => 'Device', 'value' => 'Phone', 'other_axis' => 'Size', 'other_value' => 'big']]],
            'Added pair that cannot meet Phone with big',
        ];
        yield 'POST projects/{project}/configurations' => ["{$p}/configurations", ['how' => 'all'], 'Added configuration Desktop, big'];
        $made = (string) DB::table('configurations')
            ->where('project_id', $this->world->project->id)
            ->where('name', 'Desktop, big')
            ->value('id');
        yield 'PATCH configurations/{configuration}' => [
            "/configurations/{$made}",
            ['name' => 'Desk'],
            'Configuration Desktop, big is called Desk',
        ];
        yield 'DELETE configurations/{configuration}' => ["/configurations/{$made}", [], 'Took out configuration Desk'];
        yield 'POST projects/{project}/releases' => ["{$p}/releases", ['name' => '9.0'], 'Added release 9.0'];
        $release = (string) DB::table('releases')->where('name', '9.0')->value('id');
        yield 'PATCH releases/{release}' => ["/releases/{$release}", ['name' => '9.1'], 'Release 9.0 is called 9.1'];
        yield 'POST projects/{project}/builds' => ["{$p}/builds", ['name' => '9.1-1'], 'Added build 9.1-1'];
        $build = (string) DB::table('builds')->where('name', '9.1-1')->value('id');
        yield 'PATCH builds/{build}' => [
            "/builds/{$build}",
            ['name' => '9.1-1', 'release_id' => $release],
            'Build 9.1-1: release none → 9.1',
        ];
        yield 'DELETE builds/{build}' => ["/builds/{$build}", [], 'Took out build 9.1-1'];
        yield 'DELETE releases/{release}' => ["/releases/{$release}", [], 'Took out release 9.1'];
        yield 'POST projects/{project}/milestones' => [
            "{$p}/milestones",
            ['name' => 'Autumn', 'due_on' => '2026-12-01'],
            'Added milestone Autumn',
        ];
        $milestone = (string) DB::table('milestones')->where('name', 'Autumn')->value('id');
        yield 'PATCH milestones/{milestone}' => [
            "/milestones/{$milestone}",
            ['name' => 'Autumn', 'due_on' => '2026-12-05'],
            'Milestone Autumn: date 2026-12-01 → 2026-12-05',
        ];
        $this->world->cycle->update(['milestone_id' => $milestone, 'starts_on' => '2026-11-30', 'ends_on' => '2026-12-02']);
        yield 'POST milestones/{milestone}/clones' => [
            "/milestones/{$milestone}/clones",
            ['name' => 'Winter', 'due_on' => '2027-01-05', 'which' => 'all'],
            'Added milestone Winter',
        ];
        $this->world->cycle->update(['milestone_id' => null]);
        $this->as($this->admin, 'POST', "{$p}/releases", ['name' => 'to undo']);
        yield 'POST projects/{project}/setup-log/{setupAct}/undo' => [
            "{$p}/setup-log/{$this->newest()['id']}/undo",
            [],
            'Took out release to undo',
        ];
        yield 'DELETE milestones/{milestone}' => ["/milestones/{$milestone}", [], 'Took out milestone Autumn'];
    }

    /**
     * @return list<string> every writing address of the areas that set a project up, and of milestones
     */
    private function ways(): array
    {
        $ways = [];
        /** @var Path $route */
        foreach (Route::getRoutes()->getRoutes() as $route) {
            $class = (string) $route->getControllerClass();
            $isSetup = str_contains($class, '\\Setup\\') || str_contains($class, 'MilestoneController');
            if ($isSetup && !in_array('GET', $route->methods(), true)) {
                $ways[] = $route->methods()[0] . ' ' . str_replace('api/v1/', '', $route->uri());
            }
        }

        return $ways;
    }

    /**
     * @return array{id: ?int, by: ?array{id: string}, lines: list<string>, may_undo: bool}
     */
    private function newest(): array
    {
        return $this->as($this->admin, 'GET', '/projects/TST/setup-log')->assertOk()->json('items.0') ?? [
            'id' => null,
            'by' => null,
            'lines' => [],
            'may_undo' => false,
        ];
    }

    /**
     * @param  list<string>  $lines
     *
     * @return list<string>
     */
    private function sorted(array $lines): array
    {
        sort($lines);

        return $lines;
    }
}
