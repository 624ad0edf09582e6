<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Coverage;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\TestCase;
use LucidStep\Tests\Support\CoverageTestCase;

/**
 * What was so when: lines that the database writes, whichever way a change came.
 */
final class HistoryTest extends CoverageTestCase
{
    private const TABLES = [
        'round_outcomes' => 'attempt_id, round',
        'entry_states' => 'entry_id',
        'requirement_places' => 'requirement_id',
        'case_absences' => 'case_id',
        'build_places' => 'build_id',
    ];

    protected function tearDown(): void
    {
        Carbon::setTestNow();
        parent::tearDown();
    }

    public function test_what_holds_now_is_what_the_record_says_now_and_no_two_lines_of_a_thing_hold_at_once(): void
    {
        mt_srand(5);
        Carbon::setTestNow('2026-12-01 08:00:00');
        $need = $this->requirement('Fares');
        $entries = [$this->linked([$need]), $this->withRows($this->lead, [['isla', '3'], ['rory', '4']]), $this->linked([$need])];
        $entries[] = $this->elsewhere($entries[0], $this->newer, $this->phone);
        for ($n = 0; $n < 60; $n++) {
            Carbon::setTestNow(Carbon::now()->addMinutes(mt_rand(0, 1) * 30));
            $this->act($entries[mt_rand(0, 3)]->refresh(), $need);
            $this->holds("after {$n}");
        }
        self::assertGreaterThan(12, DB::table('round_outcomes')->whereNotNull('until')->count() + DB::table('entry_states')->count());
    }

    public function test_the_application_can_read_these_lines_and_not_write_them(): void
    {
        foreach (array_keys(self::TABLES) as $table) {
            $may = DB::selectOne(
                "select has_table_privilege(current_user, '{$table}', 'select') as s, " .
                    "has_table_privilege(current_user, '{$table}', 'insert, update, delete') as w",
            );
            self::assertSame([true, false], [$may->s, $may->w], $table);
        }
    }

    public function test_the_time_of_a_line_is_the_applications_where_that_is_another_one_and_else_the_databases(): void
    {
        Carbon::setTestNow('2026-11-05 12:00:00');
        $then = $this->requirement('Then');
        Carbon::setTestNow();
        $now = $this->requirement('Now');
        $since = static fn(string $id): string => (string) DB::table('requirement_places')->where('requirement_id', $id)->value('since');
        self::assertStringStartsWith('2026-11-05 12:00:00', $since($then));
        self::assertLessThan(60, abs(Carbon::now()->diffInSeconds(Carbon::parse($since($now)))));
    }

    public function test_an_attempt_whose_rounds_are_all_left_out_is_known_as_one_that_was_finished(): void
    {
        $entry = $this->withRows($this->lead, [['isla', '3']]);
        $attempt = $this->walked($entry, $this->lead);
        $left = ['round' => 1, 'act' => 'skip', 'reason' => 'No such passenger'];
        $this->as($this->lead, 'POST', "/attempts/{$attempt}/rounds", $left)->assertSuccessful();
        $this->as($this->lead, 'POST', "/attempts/{$attempt}/finish", [
            'verdict' => 'pass',
            'note' => 'Nothing to see',
        ])->assertSuccessful();
        self::assertSame(['skipped'], DB::table('round_outcomes')->where('attempt_id', $attempt)->pluck('state')->all());
        self::assertSame(0, DB::table('coverage_cells')->where('attempt_id', $attempt)->count());
        $this->holds('with a round left out');
    }

    private function act(Entry $entry, string $need): void
    {
        $attempt = $entry->open_attempt_id ?? $entry->last_attempt_id;
        $verdict = ['pass', 'fail'][mt_rand(0, 1)];
        match (mt_rand(0, 7)) {
            0, 1 => $this->as($this->lead, 'POST', "/cycles/{$entry->cycle->key}/list-verdicts", [
                'ids' => [$entry->id],
                'verdict' => $verdict,
                'note' => 'Seen it all before',
                'happened' => 'It broke',
            ]),
            2 => $this->as($this->lead, 'POST', "/entries/{$entry->id}/attempts", ['again' => true]),
            3 => null === $attempt ? null : $this->send($this->lead, $attempt, 1, 1, $verdict, ['happened' => 'It broke']),
            4 => null === $attempt
                ? null
                : $this->as($this->lead, 'POST', "/attempts/{$attempt}/finish", ['verdict' => $verdict, 'note' => 'A word']),
            5 => $this->as($this->lead, 'POST', "/entries/{$entry->id}/retests", ['reason' => 'Fixed, they say']),
            6 => TestCase::query()
                ->whereKey($entry->case_id)
                ->update(['state' => ['retired', 'approved'][mt_rand(0, 1)]]),
            default => Build::query()
                ->whereKey($this->newer->id)
                ->update(['position' => mt_rand(0, 3)]),
        };
        $this->as($this->lead, 'PUT', "/requirements/{$need}", ['title' => 'Fares ' . mt_rand(1, 3), 'text' => '', 'external_id' => null]);
    }

    private function holds(string $when): void
    {
        self::becomeOwner();
        foreach (
            [
                'rounds' => [
                    'select attempt_id, round, row_id, build_id, configuration_id, case_version, state from counted_rounds',
                    'select attempt_id, round, row_id, build_id, configuration_id, case_version, state from round_outcomes ' .
                    'where until is null',
                ],
                'entries' => [
                    "select e.id, e.display_state, y.state in ('released', 'closed') from entries e join cycles y on y.id = e.cycle_id",
                    'select entry_id, state, released from entry_states where until is null',
                ],
                'requirements' => [
                    'select id, parent_id, title, position from requirements where dropped_at is null',
                    'select requirement_id, parent_id, title, position from requirement_places where until is null',
                ],
                'cases' => [
                    "select id from cases where state = 'retired' or binned_at is not null",
                    'select case_id from case_absences where until is null',
                ],
                'builds' => ['select id, position from builds', 'select build_id, position from build_places where until is null'],
            ]
            as $what => [$is, $kept]
        ) {
            $owner = DB::selectOne(
                "select (select count(*) from (({$is}) except all ({$kept})) a) + " .
                    "(select count(*) from (({$kept}) except all ({$is})) b) as n",
            );
            self::assertSame(0, $owner->n, "{$what}, {$when}");
        }
        foreach (self::TABLES as $table => $of) {
            $twice = DB::selectOne(
                "select count(*) as n from (select since, lead(since) over (partition by {$of} order by since, id) as next, " .
                    "until from {$table}) l where next is not null and (until is null or until > next)",
            );
            self::assertSame(0, $twice->n, "{$table} holds two at once, {$when}");
        }
        DB::statement('set local role none');
    }
}
