<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Walk;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\User;
use LucidStep\Tests\Support\FeatureTestCase;

final class WalkTest extends FeatureTestCase
{
    public function test_a_walk_from_start_to_a_sealed_end(): void
    {
        $me = $this->world->person();
        $entry = $this->world->entry();
        $attempt = $this->start($entry, $me);
        self::assertSame($me->id, $entry->refresh()->assignee_id, 'opening an unassigned entry takes it');
        self::assertSame('not_run', $entry->display_state);

        $this->judge($me, $attempt, 1, 'pass', ['active_ms' => 1500]);
        self::assertSame('in_progress', $entry->refresh()->display_state);
        $this->judge($me, $attempt, 2, 'fail', ['happened' => ' The total is wrong. ', 'active_ms' => 2500]);
        $this->judge($me, $attempt, 3, 'blocked', ['reason' => 'Data missing', 'waits_on' => 'Lina']);
        $this->as($me, 'POST', "/attempts/{$attempt}/notes", ['round' => 1, 'step' => 1, 'note' => 'Slow'])->assertOk();
        $detail = $this->as($me, 'GET', "/attempts/{$attempt}")->assertOk();
        $detail
            ->assertJsonPath('attempt.roll_up', 'fail')
            ->assertJsonPath('attempt.active_ms', 4000)
            ->assertJsonPath('rounds.0.steps.0.note', 'Slow')
            ->assertJsonPath('rounds.0.steps.1.happened', 'The total is wrong.')
            ->assertJsonPath('rounds.0.steps.2.waits_on', 'Lina');

        $this->as($me, 'POST', "/attempts/{$attempt}/finish", ['note' => 'As seen', 'time' => '1h 20m'])
            ->assertOk()
            ->assertJson(['applied' => true]);
        $entry->refresh();
        self::assertSame(
            ['fail', null, $attempt, 4_800_000],
            [$entry->display_state, $entry->open_attempt_id, $entry->last_attempt_id, $entry->active_ms],
        );
        $this->as($me, 'GET', "/attempts/{$attempt}/verification")->assertJson(['state' => 'whole', 'events' => 6]);
        $kinds = DB::table('events')->where('attempt_id', $attempt)->orderBy('sequence')->pluck('kind')->all();
        self::assertSame(['started', 'verdict_given', 'verdict_given', 'verdict_given', 'note_written', 'finished'], $kinds);
    }

    public function test_a_verdict_is_taken_back_and_the_words_go_with_it(): void
    {
        $me = $this->world->person();
        $attempt = $this->start($entry = $this->world->entry($me), $me);
        $this->judge($me, $attempt, 1, 'fail', ['happened' => 'Wrong']);
        $this->judge($me, $attempt, 1, 'not_run');
        $this->as($me, 'GET', "/attempts/{$attempt}")
            ->assertJsonPath('rounds.0.steps.0.verdict', 'not_run')
            ->assertJsonPath('rounds.0.steps.0.happened', '');
        self::assertSame('not_run', $entry->refresh()->display_state);
        self::assertSame(
            '{"from":"fail","round":1,"step":1,"to":"not_run","active_ms":0}',
            $this->sorted(DB::table('events')->where('attempt_id', $attempt)->orderByDesc('sequence')->value('payload'), [
                'from',
                'round',
                'step',
                'to',
                'active_ms',
            ]),
        );
    }

    public function test_fail_and_blocked_want_words_and_steps_must_exist(): void
    {
        $me = $this->world->person();
        $attempt = $this->start($this->world->entry($me), $me);
        $this->send($me, $attempt, 1, 'fail')->assertUnprocessable()->assertJsonPath('errors.happened.0', 'Say what happened instead.');
        $this->send($me, $attempt, 1, 'fail', ['happened' => '   '])->assertUnprocessable();
        $this->send($me, $attempt, 1, 'blocked')->assertUnprocessable()->assertJsonPath('errors.reason.0', 'Say why it is blocked.');
        $this->send($me, $attempt, 4, 'pass')
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['step']]);
        $this->send($me, $attempt, 1, 'in_progress')
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['verdict']]);
        $this->send($me, $attempt, 1, 'fail', ['happened' => "zero\0byte"])->assertUnprocessable();
        $this->send($me, $attempt, 1, 'fail', ['happened' => str_repeat('x', 10_001)])->assertUnprocessable();
        self::assertSame(1, DB::table('events')->where('attempt_id', $attempt)->count(), 'nothing was written');
    }

    public function test_the_same_key_again_returns_the_first_answer_and_records_once(): void
    {
        $me = $this->world->person();
        $attempt = $this->start($this->world->entry($me), $me);
        $key = (string) Str::uuid7();
        $body = ['round' => 1, 'step' => 1, 'verdict' => 'pass', 'active_ms' => 700];
        $this->as($me, 'POST', "/attempts/{$attempt}/verdicts", $body, ['Idempotency-Key' => $key])->assertOk();
        // The answer was lost, and the device sends it again, a moment later.
        $this->as(
            $me,
            'POST',
            "/attempts/{$attempt}/verdicts",
            [...$body, 'sent_at' => Carbon::now()->addSeconds(4)->toIso8601ZuluString()],
            ['Idempotency-Key' => $key],
        )
            ->assertOk()
            ->assertJson(['applied' => true])
            ->assertHeader('Idempotent-Replay', 'true');
        self::assertSame(2, DB::table('events')->where('attempt_id', $attempt)->count());
        $this->as($me, 'POST', "/attempts/{$attempt}/verdicts", [...$body, 'step' => 2], ['Idempotency-Key' => $key])->assertConflict();
        $this->as($me, 'POST', "/attempts/{$attempt}/verdicts", $body, ['Idempotency-Key' => 'nonsense'])->assertUnprocessable();
        // A refused request uses no key up.
        $again = (string) Str::uuid7();
        $this->as(
            $me,
            'POST',
            "/attempts/{$attempt}/verdicts",
            ['round' => 1, 'step' => 9, 'verdict' => 'pass'],
            ['Idempotency-Key' => $again],
        )->assertUnprocessable();
        $this->as(
            $me,
            'POST',
            "/attempts/{$attempt}/verdicts",
            ['round' => 1, 'step' => 2, 'verdict' => 'pass'],
            ['Idempotency-Key' => $again],
        )->assertOk();
    }

    public function test_finishing_obeys_the_rules_and_says_which_field(): void
    {
        $me = $this->world->person();
        $attempt = $this->start($entry = $this->world->entry($me), $me);
        $this->judge($me, $attempt, 1, 'pass');
        $this->as($me, 'POST', "/attempts/{$attempt}/finish", [])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['verdict']]);
        $this->as($me, 'POST', "/attempts/{$attempt}/finish", ['verdict' => 'pass', 'note' => 'no'])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['note']]);
        $this->as($me, 'POST', "/attempts/{$attempt}/finish", ['verdict' => 'pass', 'note' => 'time is up', 'time' => 'soon'])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['time']]);
        $this->as($me, 'POST', "/attempts/{$attempt}/finish", ['verdict' => 'pass', 'note' => 'time is up'])->assertOk();
        self::assertSame('pass', $entry->refresh()->display_state);
        $this->as($me, 'GET', "/attempts/{$attempt}")
            ->assertJsonPath('attempt.overruled', true)
            ->assertJsonPath('attempt.roll_up', 'in_progress');
    }

    public function test_going_on_is_the_same_attempt_and_starting_again_abandons_it(): void
    {
        $me = $this->world->person();
        $first = $this->start($entry = $this->world->entry($me), $me);
        $this->judge($me, $first, 1, 'pass');
        self::assertSame($first, $this->start($entry, $me));
        $second = $this->as($me, 'POST', "/entries/{$entry->id}/attempts", ['again' => true])
            ->assertCreated()
            ->assertJsonPath('attempt.number', 2)
            ->json('attempt.id');
        $this->as($me, 'GET', "/attempts/{$first}")
            ->assertJsonPath('attempt.state', 'abandoned')
            ->assertJsonPath('rounds.0.steps.0.verdict', 'pass');
        self::assertSame($second, $entry->refresh()->open_attempt_id);
        self::assertSame('not_run', $entry->display_state);
    }

    public function test_two_testers_on_one_entry_never_overwrite_each_other(): void
    {
        [$me, $you] = [$this->world->person(), $this->world->person('other')];
        $attempt = $this->start($entry = $this->world->entry($me), $me);
        $this->judge($me, $attempt, 1, 'pass');
        $this->as($you, 'POST', "/entries/{$entry->id}/attempts")
            ->assertConflict()
            ->assertJsonPath('type', 'urn:lucid-step:problem:walked-by-another')
            ->assertJsonPath('tester', 'Tester');
        $this->send($you, $attempt, 2, 'pass')->assertStatus(202)->assertJsonPath('held_because', 'The attempt is with another person.');

        Carbon::setTestNow(Carbon::now()->addMinute());
        $before = Carbon::now()->subSeconds(20)->toIso8601ZuluString('millisecond');
        $this->as($you, 'POST', "/attempts/{$attempt}/take-over")
            ->assertOk()
            ->assertJsonPath('attempt.tester.name', 'Other');
        self::assertSame($you->id, $entry->refresh()->assignee_id);
        $this->send($me, $attempt, 2, 'pass', ['device_time' => $before])
            ->assertOk()
            ->assertJson(['applied' => true]);
        $this->send($me, $attempt, 3, 'fail', [
            'happened' => 'Later',
            'device_time' => Carbon::now()->addSeconds(5)->toIso8601ZuluString(),
        ])->assertStatus(202);
        $this->as($you, 'GET', "/attempts/{$attempt}")
            ->assertJsonPath('rounds.0.steps.1.verdict', 'pass')
            ->assertJsonPath('rounds.0.steps.2.verdict', 'not_run')
            ->assertJsonCount(2, 'late');
        Carbon::setTestNow();
    }

    public function test_what_arrives_after_the_end_or_the_closing_is_kept_and_not_applied(): void
    {
        $me = $this->world->person();
        $attempt = $this->start($entry = $this->world->entry($me), $me);
        $other = $this->start($this->world->entry($me), $me);
        $this->as($me, 'POST', "/attempts/{$attempt}/finish", ['verdict' => 'pass', 'note' => 'seen it'])->assertOk();
        $this->send($me, $attempt, 1, 'fail', ['happened' => 'Too late'])
            ->assertStatus(202)
            ->assertJsonPath('applied', false);
        self::assertSame('pass', $entry->refresh()->display_state);

        $recorded = Carbon::now()->subMinute()->toIso8601ZuluString();
        $this->world->cycle->update(['state' => 'closed', 'closed_at' => Carbon::now()]);
        $this->send($me, $other, 1, 'pass', ['device_time' => $recorded])->assertOk();
        $this->send($me, $other, 2, 'pass', ['device_time' => Carbon::now()->addMinute()->toIso8601ZuluString()])->assertStatus(202);
        self::assertSame(2, DB::table('late_commands')->count());
        $this->as($me, 'GET', "/attempts/{$attempt}/verification")->assertJsonPath('state', 'whole');
    }

    public function test_time_is_corrected_after_the_end_and_the_measured_one_kept(): void
    {
        $me = $this->world->person();
        $attempt = $this->start($entry = $this->world->entry($me, 1), $me);
        $this->judge($me, $attempt, 1, 'pass', ['active_ms' => 9000]);
        $this->as($me, 'POST', "/attempts/{$attempt}/finish")->assertOk();
        $this->as($me, 'POST', "/attempts/{$attempt}/time", ['time' => '0'])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['time']]);
        $this->as($this->world->person('other'), 'POST', "/attempts/{$attempt}/time", ['time' => '5m'])->assertForbidden();
        $this->as($me, 'POST', "/attempts/{$attempt}/time", ['time' => '5m'])
            ->assertOk()
            ->assertJsonPath('attempt.active_ms', 9000)
            ->assertJsonPath('attempt.corrected_ms', 300_000);
        self::assertSame(300_000, $entry->refresh()->active_ms);
        $this->as($me, 'GET', "/attempts/{$attempt}/verification")->assertJsonPath('state', 'whole');
    }

    public function test_events_are_never_changed_and_a_forged_one_is_found(): void
    {
        $me = $this->world->person();
        $attempt = $this->start($this->world->entry($me, 1), $me);
        $this->judge($me, $attempt, 1, 'fail', ['happened' => 'Wrong']);
        // Not as the application, which has no right to, and not as the owner either, whom a trigger stops.
        foreach (['permission denied', 'append-only'] as $why) {
            foreach (['update events set kind = \'x\'', 'delete from events'] as $sql) {
                try {
                    DB::transaction(static fn() => DB::statement($sql));
                    self::fail('The database let it happen.');
                } catch (\Illuminate\Database\QueryException $e) {
                    self::assertStringContainsString($why, $e->getMessage());
                }
            }
            self::becomeOwner();
        }
        DB::statement('alter table events disable trigger events_append_only');
        DB::table('events')
            ->where('attempt_id', $attempt)
            ->where('sequence', 2)
            ->update(['payload' => '{"to":"pass"}']);
        $this->as($me, 'GET', "/attempts/{$attempt}/verification")->assertJson(['state' => 'broken', 'at' => 2]);
    }

    public function test_a_wrong_device_clock_is_noted(): void
    {
        $me = $this->world->person();
        $attempt = $this->start($this->world->entry($me, 1), $me);
        $this->judge($me, $attempt, 1, 'pass', [
            'device_time' => Carbon::now()->addHours(3)->toIso8601ZuluString(),
            'sent_at' => Carbon::now()->addHours(3)->toIso8601ZuluString(),
            'counter' => 4,
        ]);
        $event = DB::table('events')->where('attempt_id', $attempt)->where('sequence', 2)->first();
        self::assertEqualsWithDelta(3 * 3_600_000, json_decode((string) $event?->payload)->clock_off_ms, 5000);
        self::assertSame(4, $event?->counter);
    }

    public function test_recording_a_verdict_makes_a_bounded_number_of_queries(): void
    {
        $me = $this->world->person();
        $entries = [$this->world->entry($me, 3), $this->world->entry($me, 60)];
        $counts = [];
        foreach ($entries as $entry) {
            $attempt = $this->start($entry, $me);
            $counts[] = $this->queries(
                fn() => $this->as(
                    $me,
                    'POST',
                    "/attempts/{$attempt}/verdicts",
                    ['round' => 1, 'step' => 2, 'verdict' => 'pass'],
                    ['Idempotency-Key' => (string) Str::uuid7()],
                )->assertOk(),
            );
        }
        self::assertSame($counts[0], $counts[1], 'however many steps the attempt has');
        self::assertLessThanOrEqual(17, $counts[0]);
    }

    private function start(Entry $entry, User $user): string
    {
        return (string) $this->as($user, 'POST', "/entries/{$entry->id}/attempts")
            ->assertCreated()
            ->json('attempt.id');
    }

    /**
     * @param  array<string, mixed>  $more
     */
    private function judge(User $user, string $attempt, int $step, string $verdict, array $more = []): void
    {
        $this->send($user, $attempt, $step, $verdict, $more)
            ->assertOk()
            ->assertJson(['applied' => true]);
    }

    /**
     * @param  array<string, mixed>  $more
     * @return \Illuminate\Testing\TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function send(User $user, string $attempt, int $step, string $verdict, array $more = []): \Illuminate\Testing\TestResponse
    {
        return $this->as($user, 'POST', "/attempts/{$attempt}/verdicts", ['round' => 1, 'step' => $step, 'verdict' => $verdict, ...$more]);
    }

    /**
     * @param  list<string>  $order
     */
    private function sorted(mixed $json, array $order): string
    {
        $values = (array) json_decode((string) $json, true);

        return (string) json_encode(array_replace(array_flip($order), $values));
    }
}
