<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Sessions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * What sessions come to, what nobody explored since a build, a session on one sheet, and what is said of it.
 */
final class FiguresTest extends FeatureTestCase
{
    private User $me;

    private User $lead;

    protected function setUp(): void
    {
        parent::setUp();
        $this->me = $this->world->person('tess');
        $this->lead = $this->world->lead();
    }

    public function test_figures_by_area_build_person_and_month_with_the_exact_interval(): void
    {
        [$booking, $refunds] = [$this->folder('Booking'), $this->folder('Refunds')];
        $newer = Build::query()->create(['project_id' => $this->world->project->id, 'name' => '2.0', 'position' => 2]);
        // Two hours of testing with three issues, on the older build; half an hour of setting up beside.
        $this->explore(
            '2026-11-01 10:00',
            150,
            ['issue', 'issue', 'issue', 'question'],
            [
                'folder_id' => $booking,
                'build_id' => $this->world->build->id,
            ],
            30,
        );
        $this->explore('2026-11-28 23:30', 90, [], ['folder_id' => $refunds, 'build_id' => $newer->id]);
        $this->explore('2026-11-29 10:00', 60, ['issue'], ['label' => 'money']);
        Carbon::setTestNow('2026-11-30 10:00');
        $rows = fn(string $by, string $more = ''): array => array_column(
            (array) $this->as($this->lead, 'GET', "/projects/TST/session-figures?by={$by}{$more}")
                ->assertOk()
                ->json('rows'),
            null,
            'name',
        );
        $folders = $rows('folder');
        self::assertSame(['Booking', 'No folder', 'Refunds'], array_keys($folders));
        self::assertEqualsWithDelta([1.5, 0.409, 3.877], self::rate($folders['Booking']), 0.0005);
        self::assertEqualsWithDelta([0, 0, 1.997], self::rate($folders['Refunds']), 0.0005);
        self::assertSame(
            [1, 9_000_000, 7_200_000, 3, 1, 29, 1, '1.0'],
            array_map(static fn(string $of): mixed => $folders['Booking'][$of], [
                'sessions',
                'active_ms',
                'testing_ms',
                'issues',
                'questions',
                'days_since',
                'builds_since',
                'newest_build',
            ]),
        );
        self::assertSame([1, 0], [$folders['Refunds']['days_since'], $folders['Refunds']['builds_since']]);
        self::assertSame(['1.0', '2.0', 'No build'], array_keys($rows('build')));
        $mine = $rows('person')[$this->me->name];
        self::assertSame([3, 4], [$mine['sessions'], $mine['issues']]);
        // Days and months are those of the project: half past eleven in UTC is noon of the next day there.
        self::assertSame(['Refunds'], array_keys($rows('folder', '&from=2026-11-28&until=2026-11-28')));
        $this->world->project->update(['time_zone' => 'Pacific/Auckland']);
        self::assertSame([], $rows('folder', '&from=2026-11-28&until=2026-11-28'));
        self::assertSame(['2026-11'], array_keys($rows('month')));
        $this->as($this->lead, 'GET', '/projects/TST/session-figures?by=moon')->assertUnprocessable();
        $this->as($this->lead, 'GET', '/projects/TST/session-figures?from=soon')->assertUnprocessable();
        // One that still runs counts nowhere.
        $this->explore('2026-11-30 09:00', null, ['issue'], ['folder_id' => $refunds]);
        self::assertSame(3, $this->as($this->lead, 'GET', '/projects/TST/session-figures')->json('all.sessions'));
    }

    public function test_what_was_not_explored_on_the_newest_build_is_proposed(): void
    {
        $folders = array_map($this->folder(...), ['Booking', 'Refunds', 'Empty', 'Fares']);
        foreach ([0, 1, 3, 3] as $in) {
            $this->as($this->lead, 'POST', '/projects/TST/cases', [
                'title' => "A case in {$in}",
                'steps' => [['action' => 'Look']],
                'folder_id' => $folders[$in],
                'labels' => 3 === $in ? ['money', 'fares'] : [],
            ])->assertCreated();
        }
        $case = DB::table('cases')->where('folder_id', $folders[3])->value('id');
        $this->as($this->me, 'POST', '/projects/TST/defects', ['title' => 'Wrong'])->assertCreated();
        Defect::query()->update(['case_id' => $case]);
        $this->explore('2026-11-01 10:00', 60, [], ['folder_id' => $folders[0], 'build_id' => $this->world->build->id]);
        $newer = Build::query()->create(['project_id' => $this->world->project->id, 'name' => '2.0', 'position' => 2]);
        $this->explore('2026-11-02 10:00', 60, [], ['folder_id' => $folders[1], 'build_id' => $newer->id]);
        Carbon::setTestNow('2026-11-03 10:00');
        $found = $this->as($this->me, 'GET', '/projects/TST/unexplored')->assertOk()->json();
        self::assertSame(
            [['Fares', '', 2, 1], ['money', '', 2, 1], ['Booking', '1.0', 1, 0]],
            array_map(static fn(array $u): array => [$u['area'], $u['since'], $u['cases'], $u['open_defects']], $found),
        );
        self::assertSame([1, 2], [$found[2]['builds_since'], $found[2]['days_since']]);
    }

    public function test_a_sheet_says_all_of_it_and_comments_stand_beside_the_record(): void
    {
        $id = $this->explore('2026-11-01 10:00', 60, ['issue', 'idea'], ['to_find' => 'what drifts']);
        $sheet = $this->as($this->lead, 'GET', "/test-sessions/{$id}/sheet")->assertOk();
        foreach (
            [
                '# TST-S1 Refunds',
                'Explore to find what drifts.',
                '- **Active:** 1:00:00 of 1:00:00',
                '## Issues',
                '- 1:00 An issue',
                '## Ideas',
            ]
            as $words
        ) {
            self::assertStringContainsString($words, (string) $sheet->json('markdown'));
        }
        self::assertCount(2, $sheet->json('lines'));

        $say = fn(User $by, array $body) => $this->as($by, 'POST', "/test-sessions/{$id}/comments", $body);
        $say($this->lead, ['text' => ' '])->assertUnprocessable();
        $say($this->lead, ['text' => 'Read it, please', 'to_id' => (string) Str::uuid7()])->assertUnprocessable();
        $other = $this->world->person('otto', Role::Lead);
        $said = $say($this->lead, ['text' => 'Is it the clock?', 'to_id' => $other->id])->assertCreated();
        $said->assertJson(['comments' => [['text' => 'Is it the clock?', 'to' => ['name' => $other->name], 'removed' => null]]]);
        self::assertSame(
            [
                $this->me->id => "{$this->lead->name} said of TST-S1: Is it the clock?",
                $other->id => "{$this->lead->name} asks you to read TST-S1: Is it the clock?",
            ],
            DB::table('notices')->where('text', 'like', '%clock%')->orderBy('user_id')->pluck('text', 'user_id')->all(),
        );
        $this->as($other, 'POST', "/test-sessions/{$id}/sign-offs", ['note' => ''])->assertOk();
        $say($this->me, ['text' => 'It is.'])
            ->assertCreated()
            ->assertJsonCount(2, 'comments');
        $comment = (string) $said->json('comments.0.id');
        $admin = $this->world->person('admin', Role::Admin);
        $this->as($this->lead, 'POST', "/session-comments/{$comment}/removals", ['reason' => 'Private'])->assertForbidden();
        $this->as($admin, 'POST', "/session-comments/{$comment}/removals", ['reason' => 'Private'])
            ->assertOk()
            ->assertJsonPath('comments.0.removed.reason', 'Private');
        $this->as($admin, 'POST', "/session-comments/{$comment}/removals", ['reason' => 'Private'])->assertConflict();
        self::assertSame(0, DB::table('notices')->where('text', 'like', '%clock%')->count());
    }

    /**
     * @param  ?int  $minutes after which it is stopped; null: it still runs
     * @param  list<string>  $lines kinds
     * @param  array<string, mixed>  $charter
     * @param  int  $settingUp minutes at its end
     */
    private function explore(string $at, ?int $minutes, array $lines, array $charter, int $settingUp = 0): string
    {
        Carbon::setTestNow($at);
        $key = (string) $this->as($this->me, 'POST', '/projects/TST/charters', ['title' => 'Refunds', ...$charter])
            ->assertCreated()
            ->json('charter.key');
        $id = (string) Str::uuid7();
        $this->as($this->me, 'POST', "/charters/{$key}/sessions", ['id' => $id])->assertCreated();
        Carbon::setTestNow(Carbon::parse($at)->addMinute());
        foreach ($lines as $kind) {
            $body = ['id' => (string) Str::uuid7(), 'kind' => $kind, 'words' => "An {$kind}"];
            $this->as($this->me, 'POST', "/test-sessions/{$id}/lines", $body)->assertCreated();
        }
        if (null !== $minutes) {
            Carbon::setTestNow(Carbon::parse($at)->addMinutes($minutes - $settingUp));
            if ($settingUp > 0) {
                $this->as($this->me, 'POST', "/test-sessions/{$id}/switches", ['to' => 'setting_up'])->assertOk();
            }
            Carbon::setTestNow(Carbon::parse($at)->addMinutes($minutes));
            $this->as($this->me, 'POST', "/test-sessions/{$id}/moves", ['to' => 'stopped'])->assertOk();
        }

        return $id;
    }

    public function test_a_folder_counts_what_was_explored_in_the_folders_within_it(): void
    {
        $booking = $this->folder('Booking');
        $passengers = $this->folder('Passengers', $booking);
        $this->explore('2026-11-01 10:00', 60, ['issue'], ['folder_id' => $passengers]);
        $this->explore('2026-11-02 10:00', 30, ['issue'], ['folder_id' => $booking]);
        $rows = array_column(
            (array) $this->as($this->lead, 'GET', '/projects/TST/session-figures?by=folder')->assertOk()->json('rows'),
            null,
            'name',
        );
        $counts = array_map(static fn(array $r): array => [$r['sessions'], $r['issues']], $rows);
        self::assertSame(['Booking' => [2, 2], 'Booking / Passengers' => [1, 1]], $counts);
        $all = $this->as($this->lead, 'GET', '/projects/TST/session-figures?by=folder')->json('all');
        self::assertSame([2, 2], [$all['sessions'], $all['issues']], 'each once');
    }

    private function folder(string $name, ?string $parent = null): string
    {
        return (string) $this->as($this->lead, 'POST', '/projects/TST/folders', ['name' => $name, 'parent_id' => $parent])
            ->assertCreated()
            ->json('id');
    }

    /**
     * @param  array<string, mixed>  $row
     *
     * @return list<mixed>
     */
    private static function rate(array $row): array
    {
        return [$row['per_hour'], $row['lower'], $row['upper']];
    }
}
