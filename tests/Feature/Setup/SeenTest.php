<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Setup;

use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * Two who replace the same: the second is told, and nothing of the first is lost unseen.
 */
final class SeenTest extends FeatureTestCase
{
    /** Puts that do not replace what others write: notes of one's own, single switches, marks on a picture. */
    private const OTHERWISE = [
        '/cases/{case}',
        '/account/password',
        '/account/second-factor',
        '/cases/{case}/needs',
        '/installation/people/{id}/ownership',
        '/projects/{project}/people/{person}/role',
        '/cases/{case}/presence',
        '/data-tables/{table}',
        '/routines/{routine}',
        '/projects/{project}/files/{sha256}/ignored-regions',
        '/projects/{project}/policies',
        '/projects/{project}/scratch',
        '/charters/{charter}',
        '/requirements/{requirement}',
        // Asks by the version that one began from.
        '/session-lines/{sessionLine}/repro',
        '/test-sessions/{testSession}/box',
        '/test-sessions/{testSession}/debrief',
    ];

    public function test_whoever_replaces_what_another_changed_meanwhile_is_told_and_nothing_is_lost(): void
    {
        $one = $this->world->person('one', Role::Admin);
        $two = $this->world->person('two', Role::Admin);
        foreach ($this->parts($one) as $path => [$read, $seen, $bodies]) {
            $method = 1 === preg_match('#^/(milestones|folders|suites)/#', $path) ? 'PATCH' : 'PUT';
            $state = fn(User $who): array => (array) $this->as($who, 'GET', $read)->assertOk()->json();
            $saw = data_get($state($two), $seen);
            self::assertIsString($saw, $path);
            $this->as($one, $method, $path, [...$bodies[0], 'seen' => $saw])->assertOk();
            $now = $state($one);
            self::assertNotSame($saw, data_get($now, $seen), $path);
            $refused = $this->as($two, $method, $path, [...$bodies[1], 'seen' => $saw])
                ->assertStatus(412)
                ->assertJsonPath('type', 'urn:lucid-step:problem:changed-meanwhile');
            self::assertSame(data_get($now, $seen), $refused->json('seen'), $path);
            $this->as($two, $method, $path, [...$bodies[1], 'seen' => null])
                ->assertUnprocessable()
                ->assertJsonStructure(['errors' => ['seen']]);
            self::assertSame($now, $state($one), "{$path}: a refusal changes nothing");
            // Told, they go on.
            $this->as($two, $method, $path, [...$bodies[1], 'seen' => $refused->json('seen')])->assertOk();
        }
    }

    public function test_what_replaces_nothing_of_another_needs_no_look(): void
    {
        $this->looks = false;
        $me = $this->world->person();
        $folder = $this->as($me, 'POST', '/projects/TST/folders', ['name' => 'Booking'])->json('id');
        $around = $this->as($me, 'POST', '/projects/TST/folders', ['name' => 'All'])->json('id');
        $this->as($me, 'PATCH', "/folders/{$folder}", ['move' => true, 'parent_id' => $around])->assertOk();
        $suite = $this->as($me, 'POST', '/projects/TST/suites', ['name' => 'Mine', 'kind' => 'picked'])->json('suite.id');
        $case = $this->world->case(0);
        $this->as($me, 'PATCH', "/suites/{$suite}", ['name' => 'Mine', 'add' => [$case->id]])
            ->assertOk()
            ->assertJsonPath('suite.cases', 1);
        $this->as($me, 'PATCH', "/suites/{$suite}", ['name' => 'Ours', 'add' => []])->assertUnprocessable();
    }

    public function test_a_cycle_a_routine_and_a_table_ask_for_the_revision(): void
    {
        $this->looks = false;
        $lead = $this->world->lead();
        $this->world->entry();
        $this->as($lead, 'PATCH', "/cycles/{$this->world->cycle->key}", ['name' => 'Other'])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['revision']]);
        $steps = ['steps' => [['action' => 'a', 'data' => '', 'expected' => 'b']]];
        $routine = $this->as($lead, 'POST', '/projects/TST/routines', ['name' => 'One', ...$steps])->json('routine.id');
        $table = ['name' => 'One', 'columns' => [['name' => 'who']], 'rows' => []];
        $id = $this->as($lead, 'POST', '/projects/TST/data-tables', $table)->json('table.id');
        foreach (["/routines/{$routine}" => ['name' => 'Two', ...$steps], "/data-tables/{$id}" => $table] as $path => $body) {
            $this->as($lead, 'PUT', $path, $body)
                ->assertUnprocessable()
                ->assertJsonStructure(['errors' => ['revision']]);
            $this->as($lead, 'PUT', $path, [...$body, 'revision' => 9])->assertStatus(412);
            $this->as($lead, 'PUT', $path, [...$body, 'revision' => 1])->assertOk();
        }
    }

    /**
     * A put that comes later says which state was seen, or stands among those that need not.
     */
    public function test_every_put_of_the_description_asks_for_the_state_that_was_seen(): void
    {
        $api = json_decode((string) file_get_contents(base_path('docs/openapi.json')), true, 512, JSON_THROW_ON_ERROR);
        $without = [];
        foreach ($api['paths'] as $path => $operations) {
            $body = $operations['put']['requestBody']['content']['application/json']['schema']['$ref'] ?? null;
            if (is_string($body)) {
                $fields = $api['components']['schemas'][basename($body)]['properties'] ?? [];
                $without = [...$without, ...isset($fields['seen']) ? [] : [$path]];
            }
        }
        self::assertEqualsCanonicalizing(self::OTHERWISE, $without);
    }

    /**
     * @return iterable<string, array{string, string, array{array<string, mixed>, array<string, mixed>}}> where it is read, where
     *     its state stands there, and two ways to write it
     */
    private function parts(User $admin): iterable
    {
        $items = static fn(string $more): array => ['items' => [['name' => 'One'], ['name' => $more]]];
        foreach (['types', 'priorities', 'milestone-types', 'phases', 'components'] as $list) {
            yield "/projects/TST/lists/{$list}" => ['/projects/TST/lists', "seen.{$list}", [$items('Two'), $items('Three')]];
        }
        foreach (['pass', 'fail', 'blocked', 'not-applicable'] as $of) {
            yield "/projects/TST/lists/reasons-{$of}" => [
                '/projects/TST/walk-setup',
                "seen.reasons-{$of}",
                [$items('Two'), $items('Three')],
            ];
        }
        $field = static fn(string $name): array => ['fields' => [['name' => $name, 'kind' => 'text']]];
        yield '/projects/TST/lists/fields' => ['/projects/TST/lists', 'seen.fields', [$field('Risk'), $field('Chance')]];
        yield '/projects/TST/lists/defect-fields' => ['/projects/TST/lists', 'seen.defect-fields', [$field('Found by'), $field('Seen by')]];
        yield '/projects/TST/storage' => ['/projects/TST/walk-setup', 'seen.storage', [['limit_mb' => 10], ['retention_days' => 9]]];
        $at = static fn(string $host): array => ['environments' => [['name' => 'Staging', 'address' => "https://{$host}.example"]]];
        yield '/projects/TST/environments' => ['/projects/TST/planning-setup', 'seen.environments', [$at('one'), $at('two')]];
        $axes = static fn(string $name): array => ['axes' => [['name' => $name, 'values' => [['name' => 'a']]]], 'forbidden' => []];
        yield '/projects/TST/axes' => ['/projects/TST/planning-setup', 'seen.axes', [$axes('Device'), $axes('Screen')]];
        $week = static fn(int $days): array => ['working_days' => range(1, $days), 'holidays' => [], 'time_zone' => 'Europe/Berlin'];
        yield '/projects/TST/calendar' => ['/projects/TST/planning-setup', 'seen.calendar', [$week(3), $week(4)]];
        $people = array_column((array) $this->as($admin, 'GET', '/projects/TST/planning-setup')->json('people'), 'id');
        $at = array_search($admin->id, $people, true);
        yield "/projects/TST/people/{$admin->id}/capacity" => [
            '/projects/TST/planning-setup',
            "people.{$at}.seen",
            [['minutes_per_day' => 10, 'days_off' => []], ['minutes_per_day' => 20, 'days_off' => []]],
        ];
        $suite = $this->as($admin, 'POST', '/projects/TST/suites', ['name' => 'All', 'kind' => 'rule', 'filter' => ['state' => 'draft']]);
        $rule = static fn(string $name, string $state): array => ['name' => $name, 'filter' => ['state' => $state]];
        yield "/suites/{$suite->json(
            'suite.id',
        )}" => ["/suites/{$suite->json('suite.id')}", 'suite.seen', [$rule('All', 'approved'), $rule('Everything', 'draft')]];
        $folder = $this->as($admin, 'POST', '/projects/TST/folders', ['name' => 'Booking'])->json('id');
        yield "/folders/{$folder}" => ['/projects/TST/folders', '0.seen', [['name' => 'Fares'], ['name' => 'Boarding']]];
        $milestone = $this->as($admin, 'POST', '/projects/TST/milestones', ['name' => 'Opening', 'due_on' => '2026-12-01'])->json('id');
        yield "/milestones/{$milestone}" => [
            '/projects/TST/milestones',
            '0.seen',
            [['name' => 'Opening', 'due_on' => '2026-12-02'], ['name' => 'Closing', 'due_on' => '2026-12-01']],
        ];
    }
}
