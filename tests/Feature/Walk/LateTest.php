<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Walk;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Storage;
use Illuminate\Support\Str;
use Illuminate\Testing\TestResponse;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\Evidence;
use LucidStep\App\Models\LateCommand;
use LucidStep\App\Models\LateState;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\StoredFile;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\Walks;
use Symfony\Component\HttpFoundation\Response;

/**
 * What a device brings when its entry, its attempt or its person's right is not what it was: nothing of it is lost.
 */
final class LateTest extends FeatureTestCase
{
    use Walks;

    private User $me;

    private User $lead;

    protected function setUp(): void
    {
        parent::setUp();
        $this->me = $this->world->person();
        $this->lead = $this->world->lead();
    }

    public function test_an_entry_taken_out_of_its_cycle_comes_back_with_what_was_walked_of_it(): void
    {
        $entry = $this->world->entry($this->me);
        $other = $this->world->entry($this->me);
        $this->remove($entry);
        self::assertNull(Entry::query()->find($entry->id));
        $id = $this->takeIn($entry)
            ->assertCreated()
            ->assertJsonPath('attempt.parallel_reason', 'The entry was taken out of the cycle meanwhile, and came back with it.')
            ->json('attempt.id');
        $this->judge($this->me, $id, 1, 1, 'fail', ['happened' => 'No tide table.']);
        $this->as($this->me, 'POST', "/attempts/{$id}/finish", [])->assertOk();
        $back = Entry::query()->findOrFail($entry->id);
        self::assertSame('fail', $back->display_state);
        self::assertGreaterThan($other->position, $back->position, 'at the end of the cycle');
        $log = (string) $this->as($this->lead, 'GET', "/cycles/{$this->world->cycle->key}/log")
            ->assertOk()
            ->getContent();
        self::assertStringContainsString('Came back: TST-C1', $log);
    }

    public function test_undoing_the_removal_leaves_what_came_back_by_itself(): void
    {
        [$walked, $still] = [$this->world->entry($this->me), $this->world->entry($this->me)];
        $act = $this->remove($walked, $still);
        $this->takeIn($walked)->assertCreated();
        $this->as($this->lead, 'POST', "/plan-acts/{$act}/undo")->assertOk();
        self::assertSame(
            2,
            Entry::query()
                ->whereIn('id', [$walked->id, $still->id])
                ->count(),
        );
        self::assertSame(1, Entry::query()->findOrFail($walked->id)->attempts_count);
    }

    public function test_the_same_entry_comes_back_once_however_often_it_is_brought(): void
    {
        $entry = $this->world->entry($this->me);
        $this->remove($entry);
        $body = $this->body($entry);
        $first = $this->takeIn($entry, $this->me, $body)->assertCreated()->json('attempt.id');
        $this->takeIn($entry, $this->me, $body)->assertCreated()->assertJsonPath('attempt.id', $first);
        $this->takeIn($entry, $this->world->person('other'))
            ->assertCreated()
            ->assertJsonPath('attempt.number', 2);
        self::assertSame(1, Entry::query()->whereKey($entry->id)->count());
    }

    public function test_what_was_never_there_or_is_not_theirs_is_not_found(): void
    {
        $entry = $this->world->entry($this->me);
        $this->as($this->me, 'POST', '/entries/' . Str::uuid7() . '/device-attempts', $this->body($entry))->assertNotFound();
        $this->as($this->me, 'POST', '/entries/nonsense/device-attempts', $this->body($entry))->assertNotFound();
        $stranger = User::query()->create(['name' => 'Stranger', 'email' => 'stranger@elsewhere.test', 'password' => 'a long password']);
        $this->takeIn($entry, $stranger)->assertNotFound();
        $this->remove($entry);
        $this->takeIn($entry, $stranger)->assertNotFound();
        self::assertNull(Entry::query()->find($entry->id), 'a stranger brings nothing back');
    }

    public function test_who_left_the_project_may_still_bring_what_they_walked_and_a_lead_decides(): void
    {
        $entry = $this->world->entry($this->me);
        Membership::query()->where('user_id', $this->me->id)->delete();
        $id = $this->takeIn($entry)
            ->assertCreated()
            ->assertJsonPath('attempt.parallel_reason', 'Tester does not record in this project any more.')
            ->json('attempt.id');
        $this->send($this->me, $id, 1, 1, 'pass')->assertStatus(202);
        $this->as($this->me, 'POST', "/attempts/{$id}/finish", ['verdict' => 'pass', 'note' => 'The rest went well'])->assertStatus(202);
        self::assertSame('not_run', $entry->refresh()->display_state);
        $this->accept();
        self::assertSame('pass', $entry->refresh()->display_state);
        $this->as($this->lead, 'GET', "/attempts/{$id}/verification")->assertJsonPath('state', 'whole');
    }

    public function test_the_queue_says_what_came_late_in_order_and_together(): void
    {
        $attempt = $this->finished($this->world->entry($this->me), $this->me);
        $this->send($this->me, $attempt, 1, 2, 'fail', ['happened' => 'The fare is wrong.', 'counter' => 4])->assertStatus(202);
        $this->send($this->me, $attempt, 1, 1, 'not_run', ['counter' => 3])->assertStatus(202);
        $this->as($this->me, 'POST', "/attempts/{$attempt}/notes", [
            'round' => 1,
            'step' => 3,
            'note' => 'Seen twice',
            'counter' => 5,
        ])->assertStatus(202);
        $this->as($this->me, 'POST', "/attempts/{$attempt}/tries", [
            'round' => 1,
            'step' => 3,
            'failed' => true,
            'counter' => 6,
        ])->assertStatus(202);
        $this->as($this->me, 'POST', "/attempts/{$attempt}/finish", [
            'verdict' => 'fail',
            'note' => 'As it is',
            'counter' => 7,
        ])->assertStatus(202);
        $items = array_values(
            array_filter(
                (array) $this->as($this->lead, 'GET', '/projects/TST/queue')->assertOk()->json('items'),
                static fn(array $i): bool => 'late' === $i['kind'],
            ),
        );
        self::assertCount(1, $items);
        self::assertSame('The attempt is finished.', $items[0]['text']);
        self::assertSame(
            [
                'Step 1: verdict taken back',
                'Step 2: fail, “The fare is wrong.”',
                'Step 3: note, “Seen twice”',
                'Step 3: a try that failed',
                'The attempt: finished as fail, “As it is”',
            ],
            $items[0]['lines'],
        );
    }

    public function test_set_aside_changes_nothing_and_stays_readable(): void
    {
        $attempt = $this->finished($entry = $this->world->entry($this->me), $this->me);
        $this->send($this->me, $attempt, 1, 2, 'fail', ['happened' => 'The fare is wrong.'])->assertStatus(202);
        $this->accept(false);
        self::assertSame('pass', $entry->refresh()->display_state);
        self::assertSame(1, $entry->attempts_count);
        $this->as($this->lead, 'GET', "/attempts/{$attempt}")
            ->assertJsonPath('late.0.state', 'set_aside')
            ->assertJsonPath('late.0.words', 'Step 2: fail, “The fare is wrong.”')
            ->assertJsonPath('late.0.judged_by.name', 'Lead');
        $this->as($this->lead, 'GET', '/projects/TST/queue')->assertJsonCount(0, 'items');
    }

    public function test_everything_a_device_can_do_is_done_once_it_is_accepted(): void
    {
        $entry = $this->withRows($this->me, [['isla', '3'], ['rory', '4'], ['una', '5']]);
        $attempt = $this->walked($entry, $this->me);
        $shown = $this->upload($this->me, $attempt, self::png(20, 10), ['round' => 1, 'step' => 1])
            ->assertCreated()
            ->json('evidence.id');
        $this->as($this->world->person('other'), 'POST', "/attempts/{$attempt}/take-over", [])->assertOk();
        $late = fn(string $method, string $path, array $body): TestResponse => $this->as($this->me, $method, $path, $body)->assertStatus(
            202,
        );
        $late('POST', "/attempts/{$attempt}/rounds", ['round' => 2, 'act' => 'skip', 'reason' => 'Rory is away', 'counter' => 1]);
        $late('POST', "/attempts/{$attempt}/rounds", ['round' => 1, 'act' => 'repeat', 'counter' => 2]);
        $this->send($this->me, $attempt, 4, 1, 'blocked', [
            'reason' => 'Environment down',
            'waits_on' => 'power',
            'counter' => 3,
        ])->assertStatus(202);
        $late('POST', "/attempts/{$attempt}/tries", ['round' => 3, 'step' => 1, 'failed' => true, 'counter' => 4]);
        $late('POST', "/attempts/{$attempt}/notes", ['note' => 'A slow day', 'counter' => 5]);
        $late('POST', "/attempts/{$attempt}/away", ['away_ms' => 900_000, 'counted_ms' => 60_000, 'counter' => 6]);
        $late('POST', "/attempts/{$attempt}/surroundings", ['environment' => 'Staging 2', 'counter' => 7]);
        $late('PATCH', "/evidence/{$shown}", ['caption' => 'The empty table', 'counter' => 8]);
        $late('POST', "/evidence/{$shown}/moves", ['round' => 3, 'step' => 2, 'counter' => 9]);
        $added = $this->upload($this->me, $attempt, self::png(9, 9), [
            'round' => 3,
            'step' => 1,
            'caption' => 'Late one',
            'counter' => 10,
        ])->assertStatus(202);
        $added->assertJsonPath('applied', false);
        $this->accept();
        $this->as($this->lead, 'GET', "/attempts/{$attempt}")
            ->assertJsonPath('rounds.1.skipped', 'Rory is away')
            ->assertJsonPath('rounds.3.repeats', 1)
            ->assertJsonPath('rounds.3.steps.0.verdict', 'blocked')
            ->assertJsonPath('rounds.3.steps.0.waits_on', 'power')
            ->assertJsonPath('rounds.2.steps.0.tries_failed', 1)
            ->assertJsonPath('attempt.remark', 'A slow day')
            ->assertJsonPath('attempt.environment', 'Staging 2')
            ->assertJsonPath('attempt.active_ms', 60_000)
            ->assertJsonPath('attempt.roll_up', 'blocked')
            ->assertJsonPath('evidence.0.caption', 'The empty table')
            ->assertJsonPath('evidence.0.round', 3)
            ->assertJsonPath('evidence.1.caption', 'Late one');
        $this->as($this->lead, 'GET', "/attempts/{$attempt}/verification")->assertJsonPath('state', 'open');
        self::assertSame(10, count(array_filter($this->events($attempt), static fn(string $kind): bool => 'late_act_accepted' === $kind)));
    }

    public function test_evidence_of_a_sealed_attempt_is_never_changed_only_its_copy(): void
    {
        $entry = $this->world->entry($this->me);
        $attempt = $this->walked($entry, $this->me);
        $shown = (string) $this->upload($this->me, $attempt, self::png(20, 10), ['round' => 1, 'step' => 1])
            ->assertCreated()
            ->json('evidence.id');
        $this->judge($this->me, $attempt, 1, 1, 'pass');
        $this->as($this->me, 'POST', "/attempts/{$attempt}/finish", ['verdict' => 'pass', 'note' => 'Enough for today'])->assertOk();
        $head = DB::table('attempts')->where('id', $attempt)->value('head');
        $this->as($this->me, 'PATCH', "/evidence/{$shown}", ['caption' => 'What I saw', 'counter' => 1])->assertStatus(202);
        $this->as($this->me, 'POST', "/evidence/{$shown}/moves", ['round' => 1, 'step' => 2, 'counter' => 2])->assertStatus(202);
        $this->as($this->me, 'DELETE', "/evidence/{$shown}", ['counter' => 3])->assertStatus(202);
        $this->accept();
        $parallelReason = (string) $entry->refresh()->last_attempt_id;
        self::assertNotSame($attempt, $parallelReason);
        $this->as($this->lead, 'GET', "/attempts/{$attempt}")
            ->assertJsonPath('evidence.0.caption', '')
            ->assertJsonPath('evidence.0.step', 1);
        $this->as($this->lead, 'GET', "/attempts/{$parallelReason}")
            ->assertJsonCount(1, 'evidence')
            ->assertJsonPath('evidence.0.caption', 'What I saw')
            ->assertJsonPath('evidence.0.step', 2);
        self::assertSame($head, DB::table('attempts')->where('id', $attempt)->value('head'));
        $this->as($this->lead, 'GET', "/attempts/{$attempt}/verification")->assertJsonPath('state', 'whole');
    }

    public function test_what_was_hidden_too_late_goes_out_of_the_sealed_attempt_with_its_trace(): void
    {
        $attempt = $this->walked($entry = $this->world->entry($this->me), $this->me);
        $answer = $this->upload($this->me, $attempt, self::png(20, 10), ['round' => 1, 'step' => 1])->assertCreated();
        [$shown, $old] = [(string) $answer->json('evidence.id'), (string) $answer->json('evidence.sha256')];
        $this->judge($this->me, $attempt, 1, 1, 'pass');
        $this->as($this->me, 'POST', "/attempts/{$attempt}/finish", ['verdict' => 'pass', 'note' => 'Enough for today'])->assertOk();
        $this->upload($this->me, $attempt, self::png(20, 10, 0xfbf9f4, [2, 2, 9, 9]), [], "/evidence/{$shown}/redactions")->assertStatus(
            202,
        );
        $stored = new StoredFile(['sha256' => $old]);
        self::assertTrue(Storage::disk('local')->exists($stored->path()));
        $this->accept();
        self::assertFalse(Storage::disk('local')->exists($stored->path()));
        $this->as($this->lead, 'GET', "/attempts/{$attempt}")->assertJsonPath('evidence.0.gone', true);
        $this->as($this->lead, 'GET', "/attempts/{$attempt}/verification")
            ->assertJsonPath('state', 'whole')
            ->assertJsonPath('removed', [$old]);
        $copy = Evidence::query()
            ->where('attempt_id', $entry->refresh()->last_attempt_id)
            ->firstOrFail();
        self::assertSame($shown, $copy->copy_of_id);
        self::assertNotSame($old, $copy->sha256);
    }

    public function test_a_text_taken_out_is_taken_out_of_what_waits_for_a_lead_too(): void
    {
        $attempt = $this->walked($this->world->entry($this->me), $this->me);
        $shown = (string) $this->upload($this->me, $attempt, self::png(20, 10), ['round' => 1, 'step' => 1])
            ->assertCreated()
            ->json('evidence.id');
        $this->as($this->me, 'PATCH', "/evidence/{$shown}", ['caption' => 'Isla Fenn, born 1990'])->assertOk();
        $sequence = DB::table('events')->where('attempt_id', $attempt)->max('sequence');
        $this->as($this->world->person('other'), 'POST', "/attempts/{$attempt}/take-over", [])->assertOk();
        $this->as($this->me, 'PATCH', "/evidence/{$shown}", ['caption' => 'Isla Fenn, born 1990'])->assertStatus(202);
        $admin = $this->world->person('admin', Role::Admin);
        $this->as($admin, 'POST', "/attempts/{$attempt}/removals", [
            'sequence' => $sequence,
            'reason' => 'A passenger is named',
        ])->assertSuccessful();
        self::assertStringNotContainsString('Isla Fenn', (string) DB::table('late_commands')->value('payload'));
        $this->accept();
        $this->as($this->lead, 'GET', "/attempts/{$attempt}")->assertJsonPath('evidence.0.caption', '(removed)');
    }

    public function test_a_round_already_walked_once_more_is_not_walked_a_third_time(): void
    {
        $attempt = $this->walked($this->withRows($this->me, [['isla', '3']]), $this->me);
        $you = $this->world->person('other');
        $this->as($you, 'POST', "/attempts/{$attempt}/take-over", [])->assertOk();
        $this->as($you, 'POST', "/attempts/{$attempt}/rounds", ['round' => 1, 'act' => 'repeat'])->assertOk();
        $this->as($this->me, 'POST', "/attempts/{$attempt}/rounds", ['round' => 1, 'act' => 'repeat'])->assertStatus(202);
        $act = LateCommand::query()->where('state', 'waiting')->firstOrFail();
        $this->as($this->lead, 'POST', "/late-commands/{$act->id}/judgements", ['accept' => true, 'all' => true])
            ->assertOk()
            ->assertJsonPath('applied', 0)
            ->assertJsonPath('refused.0.command', 'Round 1: walked once more')
            ->assertJsonPath('refused.0.why', 'Round 2 walks this row once more already. Repeat that one.');
        self::assertSame([LateState::SetAside], LateCommand::query()->pluck('state')->all());
        $this->as($you, 'GET', "/attempts/{$attempt}")->assertJsonCount(2, 'rounds');
    }

    /**
     * @return string the act of removing them
     */
    private function remove(Entry ...$entries): string
    {
        return (string) $this->as($this->lead, 'POST', "/cycles/{$this->world->cycle->key}/entry-acts", [
            'act' => 'remove',
            'ids' => array_map(static fn(Entry $e): string => $e->id, $entries),
            'changes' => [],
        ])
            ->assertOk()
            ->json('act_id');
    }

    /**
     * @return array<string, mixed>
     */
    private function body(Entry $entry): array
    {
        return [
            'id' => (string) Str::uuid7(),
            'case_version_id' => $entry->case_version_id,
            'device_time' => Carbon::now()->subHour()->toIso8601ZuluString(),
            'sent_at' => Carbon::now()->toIso8601ZuluString(),
        ];
    }

    /**
     * @param  ?array<string, mixed>  $body
     * @return TestResponse<Response>
     */
    private function takeIn(Entry $entry, ?User $by = null, ?array $body = null): TestResponse
    {
        return $this->as($by ?? $this->me, 'POST', "/entries/{$entry->id}/device-attempts", $body ?? $this->body($entry));
    }

    private function accept(bool $accept = true): void
    {
        $act = LateCommand::query()->where('state', 'waiting')->firstOrFail();
        $this->as($this->lead, 'POST', "/late-commands/{$act->id}/judgements", ['accept' => $accept, 'all' => true])
            ->assertOk()
            ->assertJsonPath('refused', []);
        self::assertSame(0, LateCommand::query()->where('state', 'waiting')->count());
    }
}
