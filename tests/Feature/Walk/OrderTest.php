<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Walk;

use Illuminate\Support\Carbon;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\User;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * In which order entries may be walked, and again.
 */
final class OrderTest extends FeatureTestCase
{
    public function test_held_entries_say_why_and_warned_ones_ask_for_a_word(): void
    {
        $me = $this->world->person();
        [$a, $b] = [$this->world->entry($me), $this->world->entry($me)];
        $this->world->needs($b, $a, 'only_if_passed');
        $this->as($me, 'POST', "/entries/{$b->id}/attempts")
            ->assertConflict()
            ->assertJsonPath('reasons.0.kind', 'needs_pass')
            ->assertJsonPath('reasons.0.name', 'TST-C1');
        $this->world->cycle->update(['conditions_hold' => false]);
        $this->as($me, 'POST', "/entries/{$b->id}/attempts")
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['word']]);
        $this->as($me, 'POST', "/entries/{$b->id}/attempts", ['word' => 'agreed with the lead'])->assertCreated();
        $late = $this->world->entry($me, 1, ['not_after' => Carbon::now()->subHour()]);
        $this->as($me, 'POST', "/entries/{$late->id}/attempts")
            ->assertConflict()
            ->assertJsonPath('reasons.0.kind', 'too_late');
    }

    public function test_policies_are_obeyed(): void
    {
        [$me, $you] = [$this->world->person(), $this->world->person('other')];
        $this->world->policies([
            'only_assignee_records' => true,
            'opening_takes' => false,
            'pass_sets_verdict' => false,
            'cycle_closes_itself' => true,
        ]);
        $entry = $this->world->entry($me, 1);
        $this->as($you, 'POST', "/entries/{$entry->id}/attempts")->assertForbidden();
        $this->as($this->world->lead(), 'POST', "/entries/{$this->world->entry(null, 1)->id}/attempts")->assertCreated();
        $attempt = $this->start($entry, $me);
        $this->judge($me, $attempt, 1, 'pass');
        $this->as($me, 'POST', "/attempts/{$attempt}/finish", [])->assertUnprocessable();
        $this->as($me, 'POST', "/attempts/{$attempt}/finish", ['verdict' => 'pass'])->assertOk();
        self::assertSame('released', $this->world->cycle->refresh()->state->value, 'another entry is still open');
        Entry::query()
            ->whereKeyNot($entry->id)
            ->update(['display_state' => 'pass']);
        $again = $this->as($me, 'POST', "/entries/{$entry->id}/attempts")
            ->assertCreated()
            ->json('attempt.id');
        $this->as($me, 'POST', "/attempts/{$again}/finish", ['verdict' => 'pass', 'note' => 'same as before'])->assertOk();
        self::assertSame('closed', $this->world->cycle->refresh()->state->value);
    }

    public function test_a_retest_is_a_new_attempt_and_the_old_one_stays(): void
    {
        [$me, $lead] = [$this->world->person(), $this->world->lead()];
        $entry = $this->world->entry($me, 1);
        $this->as($lead, 'POST', "/entries/{$entry->id}/retests", ['reason' => 'too early'])->assertConflict();
        $first = $this->start($entry, $me);
        $this->judge($me, $first, 1, 'fail', ['happened' => 'Wrong']);
        $this->as($me, 'POST', "/attempts/{$first}/finish")->assertOk();
        $this->as($lead, 'POST', "/entries/{$entry->id}/retests", [])
            ->assertUnprocessable()
            ->assertJsonPath('errors.reason.0', 'Say what should be looked at again.');
        Carbon::setTestNow(Carbon::now()->addSecond());
        $this->as($lead, 'POST', "/entries/{$entry->id}/retests", ['reason' => 'Fixed in 1.1'])
            ->assertCreated()
            ->assertJsonPath('entry.display_state', 'retest')
            ->assertJsonPath('entry.previous_verdict', 'fail');
        $this->as($me, 'GET', '/projects/TST/today')->assertJsonPath('cycles.0.entries.0.retest_reason', 'Fixed in 1.1');
        $this->as($me, 'GET', "/attempts/{$first}/verification")->assertJsonPath('state', 'whole');
        Carbon::setTestNow(Carbon::now()->addSecond());
        $second = $this->start($entry, $me);
        self::assertNotSame($first, $second);
        $this->as($me, 'GET', "/attempts/{$second}")
            ->assertJsonPath('retest_reason', 'Fixed in 1.1')
            ->assertJsonPath('earlier.0.id', $first);
        $this->judge($me, $second, 1, 'pass');
        $this->as($me, 'POST', "/attempts/{$second}/finish")->assertOk();
        self::assertSame('pass', $entry->refresh()->display_state);
        Carbon::setTestNow();
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
}
