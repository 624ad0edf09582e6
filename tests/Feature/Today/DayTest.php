<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Today;

use Illuminate\Support\Carbon;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * A person's day: in which order it is due, what changed of it, and the notes that follow.
 */
final class DayTest extends FeatureTestCase
{
    public function test_what_is_due_first_stands_first(): void
    {
        $me = $this->world->person();
        $late = $this->world->entry($me);
        $cycle = $this->as($this->world->lead(), 'POST', '/projects/TST/cycles', [
            'name' => 'Later',
            'starts_on' => Carbon::now()->toDateString(),
            'ends_on' => Carbon::now()->addDays(9)->toDateString(),
            'picks' => ['cases' => [$late->case_id]],
        ])
            ->assertCreated()
            ->json('cycle.key');
        $this->as($this->world->lead(), 'POST', "/cycles/{$cycle}/moves", ['to' => 'released'])->assertOk();
        $today = $this->as($me, 'GET', '/projects/TST/today')->assertOk();
        $today
            ->assertJsonPath('cycles.0.cycle.key', 'TST-R1')
            ->assertJsonPath('next_entry_id', $late->id)
            ->assertJsonPath('seen_at', null)
            ->assertJsonPath('news', []);
        // A window that closes in an hour comes before the end of any cycle.
        $soon = \LucidStep\App\Models\Entry::query()
            ->where('cycle_id', '<>', $this->world->cycle->id)
            ->firstOrFail();
        $soon->update(['assignee_id' => $me->id, 'not_after' => Carbon::now()->addHour()]);
        $this->as($me, 'GET', '/projects/TST/today')
            ->assertJsonPath('cycles.0.cycle.key', $cycle)
            ->assertJsonPath('next_entry_id', $soon->id)
            ->assertJsonPath('cycles.0.due_at', $soon->refresh()->not_after?->toIso8601ZuluString());
    }

    public function test_what_changed_stays_until_it_was_seen(): void
    {
        $me = $this->world->person();
        $you = $this->world->person('other');
        $lead = $this->world->lead();
        $old = $this->world->entry($me);
        $as_of = $this->as($me, 'GET', '/projects/TST/today')->json('as_of');
        $this->as($me, 'POST', '/projects/TST/today-seen', ['as_of' => $as_of])->assertNoContent();
        Carbon::setTestNow(Carbon::now()->addMinutes(5));
        $new = $this->world->entry();
        $this->as($lead, 'POST', '/cycles/TST-R1/entry-acts', [
            'act' => 'assign',
            'ids' => [$new->id],
            'changes' => ['assignee_id' => $me->id, 'note' => 'You know the quay'],
        ])->assertOk();
        $attempt = (string) $this->as($you, 'POST', "/entries/{$old->id}/attempts")->json('attempt.id');
        $this->as($you, 'POST', "/attempts/{$attempt}/finish", ['verdict' => 'fail', 'note' => 'It leaks'])->assertOk();
        Carbon::setTestNow(Carbon::now()->addMinute());
        $this->as($lead, 'POST', "/entries/{$old->id}/retests", ['reason' => 'On the other quay'])->assertCreated();
        $news = $this->as($me, 'GET', '/projects/TST/today')->assertOk();
        self::assertEqualsCanonicalizing(['assigned', 'judged', 'retest'], array_column((array) $news->json('news'), 'kind'));
        self::assertContains('Assigned to you: You know the quay', array_column((array) $news->json('news'), 'text'));
        self::assertContains('A retest is asked: On the other quay', array_column((array) $news->json('news'), 'text'));
        $this->as($me, 'POST', '/projects/TST/today-seen', ['as_of' => $news->json('as_of')])->assertNoContent();
        $this->as($me, 'GET', '/projects/TST/today')->assertJsonPath('news', []);
        $this->as($me, 'POST', '/projects/TST/today-seen', ['as_of' => 'never'])->assertUnprocessable();
    }

    public function test_other_days_and_another_build_of_a_cycle_are_news_to_who_walks_in_it(): void
    {
        [$me, $you, $lead] = [$this->world->person(), $this->world->person('other'), $this->world->lead()];
        $this->world->entry($me);
        foreach ([$me, $you] as $one) {
            $this->as($one, 'POST', '/projects/TST/today-seen', [
                'as_of' => $this->as($one, 'GET', '/projects/TST/today')->json('as_of'),
            ])->assertNoContent();
        }
        Carbon::setTestNow(Carbon::now()->addMinutes(5));
        $cycle = $this->world->cycle;
        $was = $cycle->ends_on;
        $next = \LucidStep\App\Models\Build::query()->create(['project_id' => $cycle->project_id, 'name' => '1.1', 'position' => 2]);
        $act = fn(array $changes): ?string => $this->as($lead, 'POST', '/projects/TST/cycle-acts', ['ids' => [$cycle->id], ...$changes])
            ->assertOk()
            ->json('act_id');
        $news = fn(\LucidStep\App\Models\User $of): array => array_column(
            array_filter(
                (array) $this->as($of, 'GET', '/projects/TST/today')->assertOk()->json('news'),
                static fn(array $n): bool => 'cycle' === $n['kind'],
            ),
            'text',
        );
        $act(['days' => 2]);
        $act(['days' => 1]);
        self::assertSame(
            ["It ends on {$was->copy()->addDays(3)->format('j M')}, not {$was->format('j M')}."],
            $news($me),
            'from what it was to what it is',
        );
        self::assertSame([], $news($you), 'nothing of theirs is in it');
        self::assertSame([], $news($lead));
        $build = $act(['build_id' => $next->id]);
        self::assertStringContainsString('It is walked on build 1.1, not 1.0.', $news($me)[0]);
        $this->as($lead, 'POST', "/plan-acts/{$build}/undo")->assertOk();
        self::assertStringNotContainsString('build', $news($me)[0], 'taken back is no news');
        $this->as($lead, 'GET', '/cycles/TST-R1/log')
            ->assertJsonPath('0.changes', [['field' => 'build', 'from' => '1.1', 'to' => '1.0']])
            ->assertJsonPath('2.changes.0.field', 'ends_on');
        $this->as($lead, 'PATCH', '/cycles/TST-R1', ['ends_on' => $was->toDateString(), 'build_id' => null])->assertOk();
        self::assertSame(['It has no build any more; it was 1.0.'], $news($me));
        $this->as($me, 'POST', '/projects/TST/today-seen', [
            'as_of' => $this->as($me, 'GET', '/projects/TST/today')->json('as_of'),
        ])->assertNoContent();
        self::assertSame([], $news($me));
    }

    public function test_the_pack_holds_the_next_ready_entries_only(): void
    {
        $me = $this->world->person();
        [$first, $held] = [$this->world->entry($me), $this->world->entry($me)];
        $this->world->needs($held, $first, 'only_if_passed');
        $this->world->entry($this->world->person('other'));
        for ($i = 0; $i < 14; $i++) {
            $this->world->entry($me, 2);
        }
        $pack = $this->as($me, 'GET', '/projects/TST/walk-pack')
            ->assertOk()
            ->assertJsonCount(12, 'entries')
            ->assertJsonPath('entries.0.entry_id', $first->id);
        self::assertNotContains($held->id, array_column((array) $pack->json('entries'), 'entry_id'));
        $one = $this->queries(fn() => $this->as($me, 'GET', '/projects/TST/walk-pack')->assertOk());
        self::assertLessThanOrEqual(30, $one);
    }

    public function test_scratch_notes_follow_the_person(): void
    {
        $me = $this->world->person();
        $this->as($me, 'GET', '/projects/TST/scratch')->assertOk()->assertJsonPath('text', '');
        $this->as($me, 'PUT', '/projects/TST/scratch', ['text' => "ask Lina\nabout the tide"])->assertOk();
        $this->as($me, 'GET', '/projects/TST/scratch')->assertJsonPath('text', "ask Lina\nabout the tide");
        $this->as($this->world->person('other'), 'GET', '/projects/TST/scratch')->assertJsonPath('text', '');
        $this->as($me, 'PUT', '/projects/TST/scratch', ['text' => str_repeat('x', 20_001)])->assertUnprocessable();
    }

    public function test_policies_and_reasons_are_a_leads_to_change(): void
    {
        $me = $this->world->person();
        $lead = $this->world->lead();
        $this->as($me, 'GET', '/projects/TST/walk-setup')
            ->assertOk()
            ->assertJsonPath('policies.opening_takes', true)
            ->assertJsonPath('reasons_blocked.0.name', 'Environment down')
            ->assertJsonPath('may_lead', false);
        $this->as($me, 'PUT', '/projects/TST/policies', ['opening_takes' => false])->assertForbidden();
        $this->as($lead, 'PUT', '/projects/TST/policies', ['after_finishing' => 'home'])->assertUnprocessable();
        $this->as($lead, 'PUT', '/projects/TST/policies', ['opening_takes' => false, 'after_finishing' => 'stay'])
            ->assertOk()
            ->assertJsonPath('policies.opening_takes', false);
        $this->as($lead, 'PUT', '/projects/TST/policies', ['skip_wrap_up_on_pass' => true])
            ->assertJsonPath('policies.opening_takes', false)
            ->assertJsonPath('policies.after_finishing', 'stay');
        $this->as($this->world->person(), 'POST', "/entries/{$this->world->entry()->id}/attempts")->assertCreated();
        self::assertNull(\LucidStep\App\Models\Entry::query()->firstOrFail()->assignee_id);
        $this->as($lead, 'PUT', '/projects/TST/lists/reasons-fail', ['items' => [['name' => 'Wrong fare'], ['name' => 'wrong fare']]])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['items.1.name']]);
        $this->as($lead, 'PUT', '/projects/TST/lists/reasons-fail', ['items' => [['name' => 'Wrong fare']]])
            ->assertOk()
            ->assertJsonPath('reasons_fail.0.name', 'Wrong fare')
            ->assertJsonCount(1, 'reasons_fail');
        $this->as($this->world->person('reader', Role::Reader), 'PUT', '/projects/TST/lists/reasons-pass', [
            'items' => [['name' => 'x']],
        ])->assertForbidden();
    }
}
