<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Today;

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Carbon;
use Illuminate\Support\Str;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\Invitation;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\Walks;
use LucidStep\Tests\Support\World;

/**
 * How the project stands, for each role.
 */
final class OverviewTest extends FeatureTestCase
{
    use Walks;

    public function test_a_lead_sees_each_running_cycle_with_its_pace_who_walks_and_what_turned(): void
    {
        [$ana, $ben, $lead] = [$this->world->person('ana'), $this->world->person('ben'), $this->world->lead()];
        $failed = $this->world->entry($ana);
        $this->finished($failed, $ana, 'fail');
        $this->finished($this->world->entry($ana), $ana);
        $open = $this->world->entry($ben, 4);
        $attempt = $this->walked($open, $ben);
        $this->judge($ben, $attempt, 1, 1, 'pass');
        [$a, $b] = [$this->world->entry($ana), $this->world->entry($ana)];
        $this->world->needs($b, $a, 'only_if_passed');
        $page = $this->overview($lead);
        self::assertSame(
            [['total' => 5, 'left' => 3, 'held' => 1]],
            array_map(
                static fn(array $c): array => ['total' => $c['cycle']['total'], 'left' => $c['left'], 'held' => $c['held']],
                $page['cycles'],
            ),
        );
        self::assertGreaterThan(0, $page['cycles'][0]['walked_per_day']);
        self::assertSame(
            [['Ben', 1, 4]],
            array_map(static fn(array $w): array => [$w['person']['name'], $w['judged'], $w['steps']], $page['walking']),
        );
        self::assertSame(
            [[$failed->id, 'not_run', 'fail', 'Ana']],
            array_map(static fn(array $t): array => [$t['entry_id'], $t['from'], $t['to'], $t['by']['name']], $page['turned']),
        );
        // What turned good again is told, what was good and stays is not, and the day before yesterday is long ago.
        $this->as($lead, 'POST', "/entries/{$failed->id}/retests", ['reason' => 'fixed'])->assertSuccessful();
        $this->finished($failed->refresh(), $ana);
        self::assertSame(
            [['fail', 'pass']],
            array_map(static fn(array $t): array => [$t['from'], $t['to']], $this->overview($lead)['turned']),
        );
        Entry::query()
            ->whereKey($failed->id)
            ->update(['display_state_at' => Carbon::now()->subDays(3)]);
        self::assertSame([], $this->overview($lead)['turned']);
    }

    public function test_each_role_finds_its_own_and_nothing_of_others(): void
    {
        $ana = $this->world->person('ana');
        $this->walked($this->world->entry($ana), $ana);
        $this->world->cycle
            ->replicate()
            ->fill(['number' => 2, 'key' => 'TST-R2', 'state' => 'draft', 'name' => 'Planned'])
            ->save();
        Invitation::query()->create([
            'project_id' => $this->world->project->id,
            'email' => 'a@b.test',
            'role' => 'tester',
            'inviter_id' => $ana->id,
            'created_at' => Carbon::now(),
            'expires_at' => Carbon::now()->addDay(),
            'failure' => 'No host',
        ]);
        $filled = static fn(array $page): array => array_keys(array_filter($page, static fn(mixed $v): bool => \is_array($v) && [] !== $v));
        foreach (
            [
                'reader' => ['cycles'],
                'tester' => ['cycles'],
                'developer' => ['cycles'],
                'lead' => ['cycles', 'walking'],
                'admin' => ['cycles', 'walking', 'failing'],
            ]
            as $role => $expected
        ) {
            $page = $this->overview($this->world->person($role, Role::from($role)));
            self::assertSame($expected, $filled($page), $role);
            self::assertCount(1, $page['cycles'], 'what is planned is nobody’s yet');
        }
        $said = $this->overview($this->world->person('admin', Role::Admin))['failing'];
        self::assertContains(['text' => 'The mail of an invitation did not go.', 'page' => '/setup/people'], $said);
    }

    public function test_a_developer_sees_what_came_back_first_with_the_picture_of_the_failing_step(): void
    {
        $lina = $this->world->person('lina', Role::Developer);
        $ana = $this->world->person('ana');
        $attempt = $this->walked($this->world->entry($ana), $ana);
        $this->judge($ana, $attempt, 1, 2, 'fail', ['happened' => 'Crumbs everywhere']);
        $picture = (string) Str::uuid7();
        $this->as($ana, 'POST', "/attempts/{$attempt}/evidence", [
            'id' => $picture,
            'file' => UploadedFile::fake()->image('crumbs.png', 40, 30),
            'round' => 1,
            'step' => 2,
        ])->assertCreated();
        $file = fn(string $title, array $more): string => (string) $this->as($ana, 'POST', '/projects/TST/defects', [
            'title' => $title,
            ...$more,
        ])
            ->assertSuccessful()
            ->json('defect.id');
        $with = $file('With me', ['attempt_id' => $attempt, 'round' => 1, 'step' => 2, 'actual' => 'Crumbs everywhere']);
        foreach (['Fixed' => 'fixed', 'Asked back' => 'needs_information', 'Done' => 'closed'] as $title => $state) {
            Defect::query()
                ->whereKey($file($title, []))
                ->update(['state' => $state, 'assignee_id' => $lina->id]);
        }
        Defect::query()
            ->whereKey($with)
            ->update(['assignee_id' => $lina->id, 'state' => 'in_work']);
        Defect::query()
            ->whereKey($file('Back again', []))
            ->update(['state' => 'reopened', 'assignee_id' => $ana->id]);
        $file('Nobody has it', []);
        Defect::query()
            ->whereKey($file('With somebody else', []))
            ->update(['assignee_id' => $ana->id]);
        $defects = $this->overview($lina)['defects'];
        self::assertSame(
            [
                'reopened' => 'Back again',
                'with_me' => 'With me',
                'asked_back' => 'Asked back',
                'nobody' => 'Nobody has it',
                'fixed' => 'Fixed',
            ],
            array_column($defects, 'title', 'group'),
        );
        self::assertSame([2, $picture, 'Crumbs everywhere'], [$defects[1]['step'], $defects[1]['picture'], $defects[1]['actual']]);
        self::assertNull($defects[0]['picture']);
    }

    public function test_a_testers_day_tells_what_is_free_in_one_line_and_lists_no_cycle_without_theirs(): void
    {
        $ana = $this->world->person('ana');
        $this->world->entry();
        $this->world->entry();
        $today = fn(User $user): array => (array) $this->as($user, 'GET', '/projects/TST/today')->assertOk()->json();
        $page = $today($ana);
        self::assertSame([[], 2, 1], [$page['cycles'], $page['free_entries'], $page['free_cycles']]);
        self::assertNotNull($page['next_entry_id'], 'the next one can still be taken by one key');
        $this->world->entry($ana);
        self::assertCount(1, $today($ana)['cycles']);
        self::assertSame(0, $today($this->world->person('reader', Role::Reader))['free_entries'], 'who cannot walk is offered none');
    }

    public function test_it_costs_the_same_however_many_entries_there_are(): void
    {
        $lead = $this->world->lead();
        $ana = $this->world->person('ana');
        $this->finished($this->world->entry($ana), $ana, 'fail');
        $few = $this->queries(fn() => $this->overview($lead));
        for ($i = 0; $i < 12; $i++) {
            $this->finished($this->world->entry($ana), $ana, 'fail');
        }
        self::assertSame($few, $this->queries(fn() => $this->overview($lead)));
        self::assertLessThan(20, $few);
    }

    /**
     * @return array<string, mixed>
     */
    private function overview(User $user): array
    {
        return (array) $this->as($user, 'GET', '/projects/TST/overview')->assertOk()->json();
    }

    public function test_a_lead_is_told_what_comes_first_until_a_cycle_is_released(): void
    {
        $lead = $this->world->lead();
        self::assertNull($this->overview($lead)['first_steps'], 'one is released');
        $world = new World('NEW');
        $world->cycle->update(['state' => 'draft']);
        $me = $world->lead();
        $steps = fn(User $who): mixed => $this->as($who, 'GET', '/projects/NEW/overview')->assertOk()->json('first_steps');
        self::assertSame(['cases' => 0, 'builds' => 1, 'people' => 1, 'invited' => 0, 'cycles' => 1, 'entries' => 0], $steps($me));
        $world->entry($me);
        $this->as($world->person('admin', Role::Admin), 'POST', '/projects/NEW/invitations', [
            'text' => 'ana@bakery.test',
            'role' => 'tester',
        ]);
        self::assertSame(['cases' => 1, 'builds' => 1, 'people' => 2, 'invited' => 1, 'cycles' => 1, 'entries' => 1], $steps($me));
        self::assertNull($steps($world->person('walks')), 'for leads');
        $this->as($me, 'POST', '/cycles/NEW-R1/moves', ['to' => 'released'])->assertSuccessful();
        self::assertNull($steps($me));
    }
}
