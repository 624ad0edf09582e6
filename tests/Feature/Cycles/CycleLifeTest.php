<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Cycles;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\LateCommand;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * What becomes of a cycle: states, blocking on, new versions, again, sign-off, the lead's queue.
 */
final class CycleLifeTest extends FeatureTestCase
{
    public function test_a_cycle_is_reviewed_released_closed_and_reopened_with_who_and_why(): void
    {
        [$lead, $other, $me] = [$this->world->lead(), $this->world->person('second', Role::Lead), $this->world->person()];
        $this->world->policies(['cycles_are_reviewed' => true]);
        $this->world->cycle->update(['state' => 'draft']);
        $move = fn(User $who, string $to, string $reason = '') => $this->as($who, 'POST', '/cycles/TST-R1/moves', [
            'to' => $to,
            'reason' => $reason,
        ]);
        $move($lead, 'in_review')->assertConflict()->assertJsonPath('type', 'urn:lucid-step:problem:empty-cycle');
        $this->world->entry($me);
        $move($lead, 'released')->assertConflict()->assertJsonPath('type', 'urn:lucid-step:problem:cannot-go-there');
        $move($lead, 'in_review')->assertOk()->assertJsonPath('cycle.state', 'in_review');
        $this->as($other, 'GET', '/notices')->assertJsonPath('items.0.text', 'Lead asks for a review of A cycle.');
        $this->as($other, 'GET', '/projects/TST/queue')
            ->assertJsonPath('items.0.kind', 'review')
            ->assertJsonPath('items.0.by.name', 'Lead');
        $move($lead, 'released')->assertConflict()->assertJsonPath('type', 'urn:lucid-step:problem:own-review');
        $move($other, 'draft')->assertUnprocessable()->assertJsonPath('errors.reason.0', 'Say in a few words why.');
        $move($other, 'draft', 'The order makes no sense')->assertOk();
        $this->as($me, 'GET', '/projects/TST/today')->assertJsonPath('cycles', []);
        $this->as($me, 'GET', '/projects/TST/cycles')->assertExactJson([]);
        $this->as($me, 'GET', '/cycles/TST-R1')->assertNotFound();
        $this->as($me, 'GET', '/entries/' . Entry::query()->value('id'))->assertNotFound();
        $this->as($me, 'GET', '/projects/TST/go-to?q=cycle')->assertJsonPath('items', []);
        $this->as($lead, 'GET', '/projects/TST/cycles')->assertJsonCount(1);
        $move($lead, 'in_review')->assertOk();
        $move($other, 'released')->assertOk();
        $this->as($me, 'GET', '/projects/TST/today')->assertJsonCount(1, 'cycles');
        $this->as($lead, 'PATCH', '/cycles/TST-R1', ['watchers' => [$me->id, $other->id]])->assertOk();
        $move($lead, 'closed')->assertOk();
        $this->as($me, 'GET', '/notices')->assertJsonPath('items.0.text', 'A cycle was closed by Lead. 1 not run.');
        config(['lucid.demo' => false]);
        $this->as($lead, 'GET', '/mails')->assertNotFound();
        config(['lucid.demo' => true]);
        $mails = (array) $this->as($lead, 'GET', '/mails')->assertOk()->assertJsonCount(2)->json();
        self::assertEqualsCanonicalizing(['tester@tst.test', 'second@tst.test'], array_column($mails, 'to'));
        self::assertStringContainsString('/TST/cycles/TST-R1', $mails[0]['text']);
        $this->as($me, 'GET', '/mails')->assertNotFound();
        $this->as($lead, 'POST', '/cycles/TST-R1/entry-acts', ['act' => 'sort_by_dependencies'])
            ->assertConflict()
            ->assertJsonPath('type', 'urn:lucid-step:problem:cycle-closed');
        $move($lead, 'released')->assertUnprocessable();
        $move($lead, 'released', 'One more build')->assertOk();
        $log = (array) $this->as($lead, 'GET', '/cycles/TST-R1/log')->json();
        self::assertSame(['Reopened the cycle', 'One more build', 'Lead'], [$log[0]['text'], $log[0]['reason'], $log[0]['by']['name']]);
        $move($me, 'closed')->assertForbidden();
    }

    public function test_signing_off_keeps_what_was_knowingly_left_unwalked(): void
    {
        [$lead, $me] = [$this->world->lead(), $this->world->person()];
        $this->walk($me, $this->world->entry($me, 1), 'pass');
        $open = $this->world->entry($me, 1);
        $this->as($lead, 'POST', '/cycles/TST-R1/sign-offs')
            ->assertUnprocessable()
            ->assertJsonPath('errors.note.0', '1 entry is left unwalked: say in a few words why that is all right.');
        $this->as($lead, 'POST', '/cycles/TST-R1/sign-offs', ['note' => 'No tablet to be had'])
            ->assertCreated()
            ->assertJsonPath('signed_off.by.name', 'Lead')
            ->assertJsonPath('signed_off.unwalked.0.id', $open->id)
            ->assertJsonPath('signed_off.counts.pass', 1);
        $this->as($me, 'POST', '/cycles/TST-R1/sign-offs', ['note' => 'me too'])->assertForbidden();
    }

    public function test_a_fail_stops_what_needs_its_pass_until_it_passes(): void
    {
        $me = $this->world->person();
        [$create, $edit, $delete, $after] = [
            $this->world->entry($me, 1),
            $this->world->entry($me, 1),
            $this->world->entry($me, 1),
            $this->world->entry($me, 1),
        ];
        $this->world->needs($edit, $create, 'only_if_passed');
        $this->world->needs($delete, $edit, 'only_if_passed');
        $this->world->needs($after, $delete, 'after');
        $this->as($me, 'POST', "/entries/{$create->id}/stops")->assertConflict();
        $this->walk($me, $create, 'fail');
        $this->as($me, 'GET', "/entries/{$create->id}/stops")
            ->assertJsonCount(2, 'stops')
            ->assertJsonPath('stopped', []);
        $this->as($me, 'POST', "/entries/{$create->id}/stops")
            ->assertCreated()
            ->assertJsonCount(2, 'stopped');
        self::assertSame(['fail', 'blocked', 'blocked', 'not_run'], $this->shows());
        $this->as($me, 'GET', '/cycles/TST-R1/entries')
            ->assertJsonPath('items.1.readiness', 'held')
            ->assertJsonPath('items.1.reasons.0.kind', 'stopped')
            ->assertJsonPath('items.1.reasons.0.name', 'TST-C1');
        $this->as($me, 'POST', "/entries/{$edit->id}/attempts")->assertConflict();
        $lead = $this->world->lead();
        $this->as($lead, 'POST', "/entries/{$create->id}/retests", ['reason' => 'Mended'])->assertCreated();
        self::assertSame(
            ['retest', 'not_run', 'not_run', 'not_run'],
            $this->shows(),
            'Under retest it has no verdict: nothing is stopped any more.',
        );
        $this->walk($me, $create, 'fail');
        $this->as($me, 'POST', "/entries/{$create->id}/stops")->assertCreated();
        // Dropping the condition lets go, too; undoing that stops nothing by itself.
        $this->as($lead, 'POST', '/cycles/TST-R1/entry-acts', ['act' => 'no_condition', 'ids' => [$edit->id]])->assertOk();
        self::assertSame(['fail', 'not_run', 'not_run', 'not_run'], $this->shows());
    }

    public function test_a_stopped_entry_is_neither_judged_nor_does_the_cycle_close_over_it(): void
    {
        $this->world->policies(['cycle_closes_itself' => true]);
        $me = $this->world->person();
        [$create, $edit, $other] = [$this->world->entry($me, 1), $this->world->entry($me, 1), $this->world->entry($me, 1)];
        $this->world->needs($edit, $create, 'only_if_passed');
        $this->walk($me, $create, 'fail');
        $this->as($me, 'POST', "/entries/{$create->id}/stops")->assertCreated();
        $this->walk($me, $other, 'pass');
        self::assertSame('released', $this->world->cycle->refresh()->state->value);
        $this->as($this->world->lead(), 'POST', '/cycles/TST-R1/entry-acts', ['act' => 'remove', 'ids' => [$edit->id]])->assertOk();
        $this->as($this->world->lead(), 'POST', "/entries/{$other->id}/retests", ['reason' => 'Again'])->assertCreated();
        $this->walk($me, $other, 'pass');
        self::assertSame('closed', $this->world->cycle->refresh()->state->value);
        self::assertSame('The cycle closed itself: everything in it is decided', DB::table('cycle_log')->orderByDesc('id')->value('text'));
    }

    public function test_taking_a_new_version_carries_the_verdicts_of_unchanged_steps(): void
    {
        [$lead, $me] = [$this->world->lead(), $this->world->person()];
        $entry = $this->world->entry($me, 3);
        $this->as($me, 'GET', "/entries/{$entry->id}/new-version")
            ->assertConflict()
            ->assertJsonPath('type', 'urn:lucid-step:problem:newest-already');
        $attempt = (string) $this->as($me, 'POST', "/entries/{$entry->id}/attempts")->json('attempt.id');
        foreach ([1, 2] as $step) {
            $this->as($me, 'POST', "/attempts/{$attempt}/verdicts", ['round' => 1, 'step' => $step, 'verdict' => 'pass'])->assertOk();
        }
        $this->as($me, 'POST', "/attempts/{$attempt}/notes", ['round' => 1, 'step' => 2, 'note' => 'Slow'])->assertOk();
        // A step comes in before all others, the first is rewritten, the second stays, the third goes.
        $this->as($me, 'PUT', '/cases/TST-C1', [
            'title' => 'Case 1',
            'revision' => 1,
            'steps' => [
                ['action' => 'Sign in at the gate', 'expected' => 'The gate opens'],
                ['action' => 'Do 1', 'data' => 'other data', 'expected' => 'See 1'],
                ['action' => 'Do 2', 'data' => 'data 2', 'expected' => 'See 2'],
            ],
        ])->assertOk();
        $this->as($lead, 'GET', '/cycles/TST-R1/entries?outdated=yes')
            ->assertJsonPath('items.0.outdated', true)
            ->assertJsonPath('total', 1);
        $this->as($lead, 'GET', '/cycles/TST-R1/plan')->assertJsonPath('outdated', 1);
        $this->as($lead, 'GET', "/entries/{$entry->id}/new-version")
            ->assertOk()
            ->assertJsonPath('from_version', 1)
            ->assertJsonPath('to_version', 2)
            ->assertJsonPath('open', true)
            ->assertJsonPath('carried', 1)
            ->assertJsonPath('lost', 1);
        $this->as($lead, 'POST', "/entries/{$entry->id}/versions")
            ->assertConflict()
            ->assertJsonPath('type', 'urn:lucid-step:problem:walked-now');
        $this->as($me, 'POST', "/entries/{$entry->id}/versions")
            ->assertOk()
            ->assertJsonPath('entry.outdated', false);
        $detail = $this->as($me, 'GET', "/attempts/{$attempt}")->assertOk();
        self::assertSame(['not_run', 'not_run', 'pass'], array_column((array) $detail->json('rounds.0.steps'), 'verdict'));
        $detail->assertJsonPath('rounds.0.steps.2.note', 'Slow');
        // What was judged before is told from what is judged in the new version.
        self::assertSame([null, null], array_column(\array_slice((array) $detail->json('steps'), 0, 2), 'carried_at'));
        self::assertGreaterThan($detail->json('rounds.0.steps.2.judged_at'), $detail->json('steps.2.carried_at'));
        self::assertSame(['Sign in at the gate', 'Do 1', 'Do 2'], array_column((array) $detail->json('steps'), 'action'));
        $this->as($me, 'POST', "/attempts/{$attempt}/verdicts", ['round' => 1, 'step' => 1, 'verdict' => 'pass'])->assertOk();
        $this->as($me, 'GET', "/attempts/{$attempt}/verification")->assertJsonPath('state', 'open');
        $this->as($me, 'POST', "/attempts/{$attempt}/verdicts", ['round' => 1, 'step' => 2, 'verdict' => 'pass'])->assertOk();
        $this->as($me, 'POST', "/attempts/{$attempt}/finish")->assertOk();
        // A finished one keeps its version; the next attempt walks the new one.
        $this->as($me, 'PUT', '/cases/TST-C1', [
            'title' => 'Case 1',
            'revision' => 2,
            'steps' => [['action' => 'All in one', 'expected' => 'Done']],
        ])->assertOk();
        $this->as($lead, 'POST', "/entries/{$entry->id}/versions")->assertOk();
        self::assertCount(3, (array) $this->as($me, 'GET', "/attempts/{$attempt}")->json('steps'));
        $this->as($me, 'GET', "/attempts/{$attempt}/verification")->assertJsonPath('state', 'whole');
        $again = (string) $this->as($me, 'POST', "/entries/{$entry->id}/attempts")->json('attempt.id');
        self::assertCount(1, (array) $this->as($me, 'GET', "/attempts/{$again}")->json('steps'));
    }

    public function test_a_cycle_again_with_new_dates_and_only_what_failed(): void
    {
        [$lead, $me] = [$this->world->lead(), $this->world->person()];
        $this->world->project->update(['time_zone' => 'Europe/Dublin']);
        [$a, $b] = [$this->world->entry($me, 1, ['not_before' => '2026-10-22T08:00:00Z']), $this->world->entry($me, 1)];
        $this->world->needs($b, $a, 'after');
        $this->world->cycle->update(['starts_on' => '2026-10-20', 'ends_on' => '2026-10-23']);
        DB::table('entries')
            ->where('id', $a->id)
            ->update(['display_state' => 'fail', 'not_before' => '2026-10-22T08:00:00Z']);
        $how = ['name' => 'Again', 'starts_on' => '2026-10-27', 'which' => 'all'];
        $this->as($lead, 'POST', '/cycles/TST-R1/clone-previews', $how)
            ->assertOk()
            ->assertJsonPath('days', 7)
            ->assertJsonPath('moves.0.new_ends_on', '2026-10-30')
            ->assertJsonPath('moves.0.entries', 2)
            ->assertJsonPath('moves.0.windows', 1);
        $this->as($lead, 'POST', '/cycles/TST-R1/clones', $how)
            ->assertCreated()
            ->assertJsonPath('cycle.key', 'TST-R2')
            ->assertJsonPath('cycle.state', 'draft')
            ->assertJsonPath('cloned_from', 'TST-R1');
        $copy = $this->as($lead, 'GET', '/cycles/TST-R2/entries')
            ->assertJsonPath('items.0.not_before', '2026-10-29T09:00:00Z')
            ->assertJsonPath('items.0.display_state', 'not_run')
            ->assertJsonPath('items.0.assignee.id', $me->id);
        $copy->assertJsonPath('items.1.needs.0.needs_id', $copy->json('items.0.id'));
        // A taken name is said before anything is made.
        $this->as($lead, 'POST', '/cycles/TST-R1/clone-previews', $how)->assertJsonPath('faults', ['There is a cycle called “Again”.']);
        $this->as($lead, 'POST', '/cycles/TST-R1/clones', $how)
            ->assertUnprocessable()
            ->assertJsonPath('errors.name.0', 'There is a cycle called “Again”.');
        $this->as($lead, 'POST', '/cycles/TST-R1/clones', [...$how, 'name' => 'Failed ones', 'which' => 'failed'])
            ->assertCreated()
            ->assertJsonPath('cycle.total', 1);
        $this->as($lead, 'POST', '/cycles/TST-R2/clones', [...$how, 'name' => 'None', 'which' => 'failed'])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['which']]);
        $this->as($lead, 'GET', '/cycles/TST-R2/comparison?with=TST-R1')
            ->assertOk()
            ->assertJsonPath('counts.gone', 1)
            ->assertJsonPath('counts.same', 1)
            ->assertJsonPath('entries.0.before', 'fail');
        $this->as($lead, 'GET', '/cycles/TST-R2/comparison?with=none')->assertUnprocessable();
    }

    public function test_a_milestone_again_moves_all_its_cycles_together(): void
    {
        $lead = $this->world->lead();
        $this->world->entry(null, 1);
        $milestone = $this->as($lead, 'POST', '/projects/TST/milestones', ['name' => 'Opening', 'due_on' => '2026-10-30'])->json('id');
        $this->world->cycle->update([
            'starts_on' => '2026-10-20',
            'ends_on' => '2026-10-23',
            'milestone_id' => $milestone,
            'name' => 'Smoke of Opening',
        ]);
        $how = ['name' => 'Winter', 'due_on' => '2026-12-30', 'off_days' => true];
        $this->as($lead, 'POST', "/milestones/{$milestone}/clone-previews", $how)
            ->assertOk()
            ->assertJsonPath('days', 61)
            ->assertJsonPath('moves.0.new_starts_on', '2026-12-21')
            ->assertJsonPath('moves.0.new_ends_on', '2026-12-23')
            ->assertJsonPath('moves.0.name', 'Smoke of Winter')
            ->assertJsonPath('faults', []);
        $this->as($lead, 'POST', "/milestones/{$milestone}/clones", $how)->assertCreated();
        self::assertSame(['Smoke of Opening', 'Smoke of Winter'], Cycle::query()->orderBy('number')->pluck('name')->all());
        $this->as($lead, 'GET', '/projects/TST/milestones')
            ->assertJsonPath('1.name', 'Winter')
            ->assertJsonPath('1.cycles', 1)
            ->assertJsonPath('1.counts.not_run', 1);
        $this->as($lead, 'POST', "/milestones/{$milestone}/clones", $how)->assertUnprocessable();
    }

    public function test_the_queue_holds_what_waits_for_a_lead_until_it_is_decided(): void
    {
        [$lead, $me] = [$this->world->lead(), $this->world->person()];
        [$a, $b, $c] = [$this->world->entry($me, 1), $this->world->entry($me, 1), $this->world->entry($me, 1)];
        $this->world->needs($c, $b, 'only_if_passed');
        $attempt = $this->walk($me, $a, 'fail');
        $this->as($me, 'POST', "/attempts/{$attempt}/time", ['time' => '1h 20m'])->assertOk();
        $this->as($me, 'POST', "/entries/{$a->id}/looks", ['note' => 'Is this meant?'])->assertCreated();
        $this->walk($me, $b, 'not_applicable');
        $this->as($me, 'POST', '/projects/TST/defects', [
            'title' => 'It fails',
            'attempt_id' => $attempt,
            'round' => 1,
            'step' => 1,
        ])->assertCreated();
        $fix = Build::query()->create(['project_id' => $this->world->project->id, 'name' => '1.1', 'position' => 9]);
        DB::table('defects')->update(['state' => 'fixed', 'fixed_build_id' => $fix->id]);
        LateCommand::query()->create([
            'project_id' => $this->world->project->id,
            'attempt_id' => $attempt,
            'actor_id' => $me->id,
            'kind' => 'verdict_given',
            'payload' => ['round' => 1, 'step' => 1, 'verdict' => 'pass'],
            'why' => 'The attempt is finished.',
            'device_time' => Carbon::now(),
            'received_at' => Carbon::now(),
        ]);
        $queue = $this->as($lead, 'GET', '/projects/TST/queue')->assertOk();
        self::assertEqualsCanonicalizing(
            ['time', 'look', 'condition', 'retest', 'late'],
            array_column((array) $queue->json('items'), 'kind'),
        );
        $this->as($me, 'GET', '/projects/TST/queue')->assertForbidden();
        $late = collect((array) $queue->json('items'))->firstWhere('kind', 'late');
        $this->as($lead, 'POST', "/late-commands/{$late['subject_id']}/judgements", ['accept' => true])
            ->assertOk()
            ->assertJsonPath('refused', []);
        $this->as($lead, 'POST', "/late-commands/{$late['subject_id']}/judgements", ['accept' => false])->assertConflict();
        $this->as($me, 'GET', "/attempts/{$attempt}/verification")->assertJsonPath('state', 'whole');
        $this->as($lead, 'POST', "/attempts/{$attempt}/time-seen")->assertNoContent();
        $this->as($lead, 'POST', "/entries/{$a->id}/looked")
            ->assertOk()
            ->assertJsonPath('entry.look', '');
        $this->as($lead, 'POST', "/entries/{$a->id}/retests", ['reason' => 'Fixed'])->assertCreated();
        $this->as($lead, 'POST', '/cycles/TST-R1/entry-acts', [
            'act' => 'no_condition',
            'ids' => [$c->id],
            'changes' => ['needs_id' => $b->id],
        ])->assertOk();
        $this->as($lead, 'GET', '/projects/TST/queue')->assertJsonPath('items', []);
    }

    /**
     * @return list<string>
     */
    private function shows(): array
    {
        return array_values(DB::table('entries')->orderBy('position')->pluck('display_state')->all());
    }

    private function walk(User $me, Entry $entry, string $verdict): string
    {
        $attempt = (string) $this->as($me, 'POST', "/entries/{$entry->id}/attempts")
            ->assertCreated()
            ->json('attempt.id');
        $this->as($me, 'POST', "/attempts/{$attempt}/verdicts", [
            'round' => 1,
            'step' => 1,
            'verdict' => $verdict,
            'happened' => 'x',
            'reason' => 'blocked' === $verdict ? 'Data missing' : '',
            'active_ms' => 1000,
        ])->assertOk();
        $this->as($me, 'POST', "/attempts/{$attempt}/finish")->assertOk();

        return $attempt;
    }
}
