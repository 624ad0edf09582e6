<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Walk;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Models\CaseVersion;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\LateCommand;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\TestCase;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\Walks;

/**
 * What the walk does beside judging steps: rounds, tries, notes, away times, lists, and what arrives late.
 */
final class RoundsTest extends FeatureTestCase
{
    use Walks;

    public function test_each_row_is_a_round_with_its_own_values_and_verdict(): void
    {
        $me = $this->world->person();
        $attempt = $this->walked($entry = $this->withRows($me, [['isla', '3'], ['rory `x` *b*', '4'], ['', '5']]), $me);
        $detail = $this->as($me, 'GET', "/attempts/{$attempt}")
            ->assertOk()
            ->assertJsonCount(3, 'rounds');
        $detail
            ->assertJsonPath('steps.0.action', 'Book for `isla`')
            ->assertJsonPath('steps.0.data', '3')
            ->assertJsonPath('steps.0.uses', ['who', 'seats'])
            ->assertJsonPath('rounds.0.texts', []);
        $detail
            ->assertJsonPath('rounds.1.texts.0.action', 'Book for ``rory `x` *b*``')
            ->assertJsonPath('rounds.2.texts.0.action', 'Book for `(empty)`')
            ->assertJsonCount(1, 'rounds.1.texts');
        $detail->assertJsonPath('rounds.1.values.1', ['name' => 'seats', 'value' => '4', 'secret' => false, 'hidden' => false]);

        $this->judge($me, $attempt, 1, 1, 'pass');
        $this->judge($me, $attempt, 1, 2, 'pass');
        $this->judge($me, $attempt, 2, 1, 'fail', ['happened' => 'No seat.']);
        $this->as($me, 'POST', "/attempts/{$attempt}/rounds", ['round' => 3, 'act' => 'skip'])
            ->assertUnprocessable()
            ->assertJsonPath('errors.reason.0', 'Say in a few words why the round is left out.');
        $this->as($me, 'POST', "/attempts/{$attempt}/rounds", ['round' => 1, 'act' => 'skip', 'reason' => 'no time'])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['round']]);
        $this->as($me, 'POST', "/attempts/{$attempt}/rounds", [
            'round' => 3,
            'act' => 'skip',
            'reason' => 'No such person today',
        ])->assertOk();
        $this->send($me, $attempt, 3, 1, 'pass')->assertUnprocessable();
        $this->as($me, 'POST', "/attempts/{$attempt}/rounds", ['round' => 2, 'act' => 'repeat'])->assertOk();
        $this->as($me, 'POST', "/attempts/{$attempt}/rounds", ['round' => 2, 'act' => 'repeat'])->assertUnprocessable();
        $this->judge($me, $attempt, 4, 1, 'pass');
        $this->judge($me, $attempt, 4, 2, 'pass');
        $this->as($me, 'GET', "/attempts/{$attempt}")
            ->assertJsonPath('rounds.1.roll_up', 'fail')
            ->assertJsonPath('rounds.2.skipped', 'No such person today')
            ->assertJsonPath('rounds.3.repeats', 2)
            ->assertJsonPath('attempt.roll_up', 'pass');
        $this->as($me, 'POST', "/attempts/{$attempt}/finish", [])->assertOk();
        self::assertSame('pass', $entry->refresh()->display_state);
        $this->as($me, 'POST', "/attempts/{$attempt}/rounds", ['round' => 1, 'act' => 'repeat'])->assertStatus(202);
    }

    public function test_tries_notes_away_times_and_surroundings_stand_in_the_record(): void
    {
        $me = $this->world->person();
        $attempt = $this->walked($this->world->entry($me), $me);
        foreach ([true, false, true] as $failed) {
            $this->as($me, 'POST', "/attempts/{$attempt}/tries", ['round' => 1, 'step' => 2, 'failed' => $failed])->assertOk();
        }
        $this->as($me, 'POST', "/attempts/{$attempt}/tries", ['round' => 1, 'step' => 9, 'failed' => true])->assertUnprocessable();
        $this->as($me, 'POST', "/attempts/{$attempt}/notes", ['note' => ' Slow all morning '])->assertOk();
        $this->as($me, 'POST', "/attempts/{$attempt}/away", ['away_ms' => 900_000, 'counted_ms' => 300_000])->assertOk();
        $this->judge($me, $attempt, 1, 1, 'pass', ['reason' => 'At a second try']);
        $this->as($me, 'POST', "/attempts/{$attempt}/surroundings", ['build_id' => (string) Str::uuid7()])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['build_id']]);
        $this->as($me, 'POST', "/attempts/{$attempt}/surroundings", [
            'build_id' => $this->world->build->id,
            'environment' => 'Staging 2, half the lanes',
        ])->assertOk();
        $this->as($me, 'GET', "/attempts/{$attempt}")
            ->assertJsonPath('rounds.0.steps.1.tries', 3)
            ->assertJsonPath('rounds.0.steps.1.tries_failed', 2)
            ->assertJsonPath('attempt.remark', 'Slow all morning')
            ->assertJsonPath('attempt.active_ms', 300_000)
            ->assertJsonPath('rounds.0.steps.0.reason', 'At a second try')
            ->assertJsonPath('attempt.environment', 'Staging 2, half the lanes');
        self::assertSame(
            ['started', 'tried', 'tried', 'tried', 'note_written', 'away_decided', 'verdict_given', 'surroundings_said'],
            DB::table('events')->where('attempt_id', $attempt)->orderBy('sequence')->pluck('kind')->all(),
        );
        $this->as($me, 'GET', "/attempts/{$attempt}/verification")->assertJsonPath('state', 'open');
    }

    public function test_verdicts_from_the_list_obey_the_rules_and_name_what_they_refuse(): void
    {
        [$me, $you] = [$this->world->person(), $this->world->person('other')];
        [$a, $b, $held, $walked] = [$this->world->entry($me), $this->world->entry($me), $this->world->entry($me), $this->world->entry($me)];
        $this->world->needs($held, $a, 'only_if_passed');
        $this->walked($walked, $you);
        $path = "/cycles/{$this->world->cycle->key}/list-verdicts";
        $ids = [$a->id, $b->id, $held->id, $walked->id];
        $this->as($me, 'POST', $path, ['ids' => $ids, 'verdict' => 'blocked', 'note' => 'no'])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['note']]);
        $this->as($me, 'POST', $path, ['ids' => $ids, 'verdict' => 'not_run', 'note' => 'The harbour is dark'])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['verdict']]);
        $this->as($this->world->person('reader', Role::Reader), 'POST', $path, [
            'ids' => $ids,
            'verdict' => 'pass',
            'note' => 'Fine by me',
        ])->assertForbidden();
        $answer = $this->as($me, 'POST', $path, [
            'ids' => $ids,
            'verdict' => 'blocked',
            'note' => 'The harbour is dark',
            'reason' => 'Environment down',
            'waits_on' => 'power',
        ])->assertOk();
        $answer
            ->assertJsonPath('done', [$a->id, $b->id])
            ->assertJsonPath('refused.0.id', $held->id)
            ->assertJsonPath('refused.1.why', 'Other is walking it.');
        self::assertSame(
            ['blocked', 'blocked', 'not_run'],
            [$a->refresh()->display_state, $b->refresh()->display_state, $held->refresh()->display_state],
        );
        $this->as($me, 'GET', "/attempts/{$a->last_attempt_id}")
            ->assertJsonPath('attempt.from_list', true)
            ->assertJsonPath('attempt.overruled', true)
            ->assertJsonPath('attempt.note', 'The harbour is dark (Environment down, waits on power)')
            ->assertJsonPath('rounds.0.steps.0.verdict', 'not_run')
            ->assertJsonPath('attempt.active_ms', 0);
        $this->world->policies(['only_assignee_records' => true]);
        $this->as($you, 'POST', $path, ['ids' => [$b->id], 'verdict' => 'pass', 'note' => 'All fine now'])->assertJsonPath(
            'refused.0.why',
            'Only its assignee records it.',
        );
        $this->as($this->world->lead(), 'POST', $path, ['ids' => [$b->id], 'verdict' => 'pass', 'note' => 'All fine now'])->assertJsonPath(
            'done',
            [$b->id],
        );
        self::assertSame(2, $b->refresh()->attempts_count);
    }

    public function test_known_defects_of_this_very_step_come_from_any_cycle_wherever_the_step_stood(): void
    {
        $me = $this->world->person();
        $entry = $this->world->entry($me);
        $attempt = $this->walked($entry, $me);
        $filed = $this->as($me, 'POST', '/projects/TST/defects', [
            'title' => 'The quay is shut',
            'attempt_id' => $attempt,
            'round' => 1,
            'step' => 2,
        ])
            ->assertCreated()
            ->json('defect.key');
        $this->as($me, 'GET', "/attempts/{$attempt}/known-defects?step=2")
            ->assertOk()
            ->assertExactJson([]);
        $this->judge($me, $attempt, 1, 2, 'fail', ['happened' => 'Shut.']);
        $this->as($me, 'POST', "/attempts/{$attempt}/finish", [])->assertOk();
        $case = TestCase::query()->findOrFail($entry->case_id);
        $this->as($me, 'PUT', "/cases/{$case->key}", [
            'title' => $case->title,
            'steps' => [['action' => 'Before all'], ['action' => 'Do 1'], ['action' => 'Do 2', 'expected' => 'See 2']],
            'revision' => $case->refresh()->revision,
        ])->assertOk();
        $again = $this->world->entry($me, 1);
        $again->update(['case_id' => $case->id, 'case_version_id' => $case->refresh()->version_id]);
        $second = $this->walked($again, $me);
        $this->as($me, 'GET', "/attempts/{$second}/known-defects?step=3")->assertJsonPath('0.key', $filed);
        $this->as($me, 'GET', "/attempts/{$second}/known-defects?step=2")->assertExactJson([]);
        Defect::query()
            ->where('key', $filed)
            ->update(['state' => 'rejected']);
        $this->as($me, 'GET', "/attempts/{$second}/known-defects?step=3")->assertJsonPath('0.closed', true);
    }

    public function test_a_retest_has_the_attempts_before_beside_it_step_by_step(): void
    {
        $me = $this->world->person();
        $attempt = $this->walked($entry = $this->withRows($me, [['isla', '3'], ['rory', '4']]), $me);
        $this->as($me, 'GET', "/attempts/{$attempt}/earlier")
            ->assertOk()
            ->assertExactJson([]);
        $this->judge($me, $attempt, 1, 1, 'pass');
        $this->judge($me, $attempt, 2, 1, 'fail', ['happened' => 'No seat for rory.']);
        $this->as($me, 'POST', "/attempts/{$attempt}/notes", ['round' => 2, 'step' => 1, 'note' => 'Twice']);
        $defect = $this->as($me, 'POST', '/projects/TST/defects', [
            ...(array) $this->as($me, 'GET', "/attempts/{$attempt}/defect-draft?round=2&step=1")->json(),
            'severity' => 'major',
            'attempt_id' => $attempt,
            'round' => 2,
            'step' => 1,
        ])
            ->assertCreated()
            ->json('defect.key');
        $this->as($me, 'POST', "/attempts/{$attempt}/finish", ['verdict' => 'fail', 'note' => 'Ended there'])->assertOk();
        // The case gets a step in front, and the rows of the entry stand in another order.
        $case = TestCase::query()->findOrFail($entry->case_id);
        $this->as($me, 'PUT', "/cases/{$case->key}", [
            'title' => 'Rows',
            'table' => DB::table('data_tables')->value('id'),
            'steps' => [
                ['action' => 'Sign in at the pier gate'],
                ['action' => 'Book for {{who}}', 'data' => '{{seats}}', 'expected' => 'A seat'],
                ['action' => 'Pay'],
            ],
            'revision' => $case->revision,
        ])->assertOk();
        $this->as($this->world->lead(), 'POST', "/entries/{$entry->id}/retests", ['reason' => 'With the new gate'])->assertCreated();
        $entry->refresh()->update([
            'case_version_id' => CaseVersion::query()->where('case_id', $case->id)->orderByDesc('number')->value('id'),
            'row_ids' => DB::table('data_rows')->orderByDesc('position')->pluck('id')->all(),
        ]);
        $check = static function (\Illuminate\Testing\TestResponse $answer, string $at) use ($defect): void {
            $answer
                ->assertOk()
                ->assertJsonPath("{$at}0.attempt.number", 1)
                ->assertJsonCount(2, "{$at}0.steps")
                ->assertJsonPath("{$at}0.gone", 0);
            $steps = collect((array) $answer->json("{$at}0.steps"))->keyBy(static fn(array $s): string => $s['record']['verdict']);
            self::assertSame(
                [2, 2, false, true, 'No seat for rory.', 'Twice'],
                [
                    $steps['fail']['step'],
                    $steps['fail']['was_round'],
                    $steps['fail']['same_text'],
                    $steps['fail']['same_values'],
                    $steps['fail']['record']['happened'],
                    $steps['fail']['record']['note'],
                ],
            );
            self::assertSame([$defect], array_column($steps['fail']['defects'], 'key'));
            self::assertSame([2, 1], [$steps['pass']['step'], $steps['pass']['was_round']]);
            self::assertNotSame($steps['fail']['round'], $steps['pass']['round']);
        };
        $check($this->as($me, 'GET', '/projects/TST/walk-pack'), 'entries.0.earlier.');
        $again = $this->walked($entry, $me);
        $check($this->as($me, 'GET', "/attempts/{$again}/earlier"), '');
        self::assertLessThanOrEqual(20, $this->queries(fn() => $this->as($me, 'GET', "/attempts/{$again}/earlier")));
        $this->as($this->world->person('reader', Role::Reader), 'GET', "/attempts/{$again}/earlier")->assertOk();
        $this->as((new \LucidStep\Tests\Support\World('ELS'))->person(), 'GET', "/attempts/{$again}/earlier")->assertNotFound();
        // An abandoned one stands there too, the newest first.
        $third = (string) $this->as($me, 'POST', "/entries/{$entry->id}/attempts", ['again' => true, 'word' => 'From the start'])
            ->assertCreated()
            ->json('attempt.id');
        $this->as($me, 'GET', "/attempts/{$third}/earlier")
            ->assertJsonPath('0.attempt.number', 2)
            ->assertJsonPath('0.steps', [])
            ->assertJsonPath('1.attempt.number', 1);
    }

    public function test_an_attempt_begun_on_the_device_is_taken_in_once_and_stands_beside_when_it_must(): void
    {
        [$me, $you] = [$this->world->person(), $this->world->person('other')];
        $entry = $this->world->entry($me);
        $pack = $this->as($me, 'GET', '/projects/TST/walk-pack')
            ->assertOk()
            ->assertJsonCount(1, 'entries')
            ->assertJsonPath('entries.0.walk.attempt.number', 1)
            ->assertJsonPath('entries.0.walk.rounds.0.steps.2.verdict', 'not_run');
        $body = [
            'id' => (string) Str::uuid7(),
            'case_version_id' => $pack->json('entries.0.case_version_id'),
            'device_time' => Carbon::now()->subHour()->toIso8601ZuluString(),
        ];
        $this->as($me, 'POST', "/entries/{$entry->id}/device-attempts", [
            ...$body,
            'case_version_id' => $this->world->case()->version_id,
        ])->assertUnprocessable();
        $this->as($me, 'POST', "/entries/{$entry->id}/device-attempts", $body)
            ->assertCreated()
            ->assertJsonPath('attempt.id', $body['id'])
            ->assertJsonPath('attempt.parallel_reason', null);
        $this->as($me, 'POST', "/entries/{$entry->id}/device-attempts", $body)->assertCreated();
        self::assertSame(1, $entry->refresh()->attempts_count);
        $this->judge($me, $body['id'], 1, 1, 'pass');

        // Somebody else walked it at the same time, on a device of theirs.
        $theirs = [...$body, 'id' => (string) Str::uuid7()];
        $this->as($you, 'POST', "/entries/{$entry->id}/device-attempts", [
            'id' => $body['id'],
            'case_version_id' => $body['case_version_id'],
        ])->assertUnprocessable();
        $this->as($you, 'POST', "/entries/{$entry->id}/device-attempts", $theirs)
            ->assertCreated()
            ->assertJsonPath('attempt.number', 2)
            ->assertJsonPath('attempt.parallel_reason', 'Tester walked this entry at the same time.');
        $this->judge($you, $theirs['id'], 1, 1, 'fail', ['happened' => 'It sank.']);
        self::assertSame([$body['id'], 'in_progress'], [$entry->refresh()->open_attempt_id, $entry->display_state]);
        $this->as($you, 'POST', "/attempts/{$theirs['id']}/finish", ['verdict' => 'fail', 'note' => ''])->assertOk();
        $this->judge($me, $body['id'], 1, 2, 'pass');
        $this->judge($me, $body['id'], 1, 3, 'pass');
        $this->as($me, 'POST', "/attempts/{$body['id']}/finish", [])->assertOk();
        self::assertSame('fail', $entry->refresh()->display_state, 'the finished attempt with the highest number');
        $this->as($me, 'GET', "/entries/{$entry->id}")->assertJsonCount(2, 'attempts');
    }

    public function test_what_arrives_too_late_is_applied_once_a_lead_accepts_it(): void
    {
        [$me, $you, $lead] = [$this->world->person(), $this->world->person('other'), $this->world->lead()];
        $attempt = $this->walked($entry = $this->world->entry($me), $me);
        $this->as($you, 'POST', "/attempts/{$attempt}/take-over", ['word' => 'You are ill today'])
            ->assertOk()
            ->assertJsonPath('attempt.takeover_word', 'You are ill today');
        $notice = (string) $this->as($me, 'GET', '/notices')->getContent();
        self::assertStringContainsString('took TST-C1 over from you: You are ill today', $notice);
        foreach ([1, 2, 3] as $step) {
            $this->judge($you, $attempt, 1, $step, 'pass');
        }
        $this->as($you, 'POST', "/attempts/{$attempt}/finish", [])->assertOk();
        $seal = DB::table('attempts')->where('id', $attempt)->value('sealed_head');
        // The first device comes back after all: newer acts first on purpose.
        $this->send($me, $attempt, 1, 2, 'fail', ['happened' => 'It broke.', 'counter' => 8])->assertStatus(202);
        $this->send($me, $attempt, 1, 1, 'pass', ['counter' => 7])->assertStatus(202);
        $this->as($me, 'POST', "/attempts/{$attempt}/finish", [
            'verdict' => 'fail',
            'note' => 'Broken for me',
            'counter' => 9,
        ])->assertStatus(202);
        $act = LateCommand::query()->firstOrFail();
        $this->as($you, 'POST', "/late-commands/{$act->id}/judgements", ['accept' => true])->assertForbidden();
        $this->as($lead, 'POST', "/late-commands/{$act->id}/judgements", ['accept' => true, 'all' => true])
            ->assertOk()
            ->assertJsonPath('refused', []);
        self::assertSame(0, LateCommand::query()->where('state', 'waiting')->count());
        self::assertSame('fail', $entry->refresh()->display_state);
        $late = (string) $entry->last_attempt_id;
        $this->as($lead, 'GET', "/attempts/{$late}")
            ->assertJsonPath('attempt.number', 2)
            ->assertJsonPath('attempt.tester.name', 'Tester')
            ->assertJsonPath('attempt.parallel_reason', 'Arrived after attempt 1 was finished.')
            ->assertJsonPath('rounds.0.steps.1.happened', 'It broke.');
        $this->as($lead, 'GET', "/attempts/{$late}/verification")->assertJsonPath('state', 'whole');
        self::assertSame($seal, DB::table('attempts')->where('id', $attempt)->value('head'), 'the finished attempt was not touched');
        $this->as($lead, 'POST', "/late-commands/{$act->id}/judgements", ['accept' => false])->assertConflict();
    }

    public function test_before_the_closing_counts_by_the_true_time_of_a_wrong_clock(): void
    {
        $me = $this->world->person();
        $attempt = $this->walked($this->world->entry($me), $me);
        $this->as($this->world->lead(), 'POST', "/cycles/{$this->world->cycle->key}/moves", [
            'to' => 'closed',
            'reason' => 'The day is over',
        ])->assertOk();
        Carbon::setTestNow(Carbon::now()->addHour());
        $at = static fn(int $minutes): string => Carbon::now()->addMinutes($minutes)->toIso8601ZuluString();
        $this->send($me, $attempt, 1, 1, 'pass', ['device_time' => $at(-90), 'sent_at' => $at(0)])->assertOk();
        self::assertStringContainsString(
            '"arrived_late": true',
            (string) DB::table('events')->where('attempt_id', $attempt)->orderByDesc('sequence')->value('payload'),
        );
        // Two hours slow: it looks like before the closing, and was not.
        $this->send($me, $attempt, 1, 2, 'pass', ['device_time' => $at(-130), 'sent_at' => $at(-120)])->assertStatus(202);
        // Two hours fast: it looks like after it, and was before.
        $this->send($me, $attempt, 1, 3, 'pass', ['device_time' => $at(30), 'sent_at' => $at(120)])->assertOk();
    }

    public function test_who_lost_the_right_loses_nothing_they_recorded(): void
    {
        $me = $this->world->person();
        $attempt = $this->walked($this->world->entry($me), $me);
        Membership::query()
            ->where('user_id', $me->id)
            ->update(['role' => 'reader']);
        $this->send($me, $attempt, 1, 1, 'pass')
            ->assertStatus(202)
            ->assertJsonPath('held_because', 'You do not record in this project any more.');
        Membership::query()->where('user_id', $me->id)->delete();
        $this->send($me, $attempt, 1, 2, 'pass')->assertStatus(202);
        $this->as($me, 'GET', "/attempts/{$attempt}")->assertNotFound();
        self::assertSame(2, LateCommand::query()->count());
        $this->as($this->world->lead(), 'POST', '/late-commands/' . LateCommand::query()->firstOrFail()->id . '/judgements', [
            'accept' => true,
            'all' => true,
        ])->assertOk();
        self::assertSame(2, DB::table('step_results')->where('verdict', 'pass')->count());
    }
}
