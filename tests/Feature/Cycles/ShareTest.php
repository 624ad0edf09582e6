<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Cycles;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\User;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * Who walks what, and what is walked when time is short.
 */
final class ShareTest extends FeatureTestCase
{
    public function test_work_is_balanced_by_the_time_people_have_and_shared_by_hand(): void
    {
        $lead = $this->world->lead();
        [$a, $b, $off] = [$this->world->person('a'), $this->world->person('b'), $this->world->person('off')];
        DB::table('projects')->update(['working_days' => '[1,2,3,4,5,6,7]']);
        Membership::query()
            ->where('user_id', $a->id)
            ->update(['minutes_per_day' => 300]);
        Membership::query()
            ->where('user_id', $b->id)
            ->update(['minutes_per_day' => 100]);
        Membership::query()
            ->where('user_id', $off->id)
            ->update(['days_off' => json_encode([Carbon::now()->toDateString(), Carbon::now()->addDay()->toDateString()])]);
        for ($i = 0; $i < 8; $i++) {
            $this->world->entry(null, 3);
        }
        $people = [$a->id, $b->id, $off->id];
        $preview = $this->as($lead, 'POST', '/cycles/TST-R1/assignment-previews', ['people' => $people])
            ->assertOk()
            ->assertJsonPath('count', 8);
        self::assertSame([6, 2, 0], array_column((array) $preview->json('people'), 'gets'));
        self::assertSame(0, Entry::query()->whereNotNull('assignee_id')->count(), 'Nothing is written before it is applied.');
        $this->as($lead, 'POST', '/cycles/TST-R1/assignment-previews', [
            'people' => $people,
            'shares' => [$a->id => 1, $b->id => 1, $off->id => 2],
        ])->assertJsonPath('people.2.gets', 4);
        $this->as($lead, 'POST', '/cycles/TST-R1/assignment-previews', ['people' => [$off->id]])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['people']]);
        $done = $this->as($lead, 'POST', '/cycles/TST-R1/assignments', ['people' => $people])
            ->assertOk()
            ->assertJsonPath('title', 'Handed out 8 entries to 2 people');
        self::assertSame(6, Entry::query()->where('assignee_id', $a->id)->count());
        $plan = $this->as($lead, 'GET', '/cycles/TST-R1/plan')
            ->assertJsonPath('seconds_unassigned', 0)
            ->assertJsonPath('last_act.id', $done->json('act_id'));
        self::assertSame([300 * 60 * 2, 6 * 180], [$plan->json('loads.0.capacity_seconds'), $plan->json('loads.0.seconds')]);
        $this->as($lead, 'POST', "/plan-acts/{$done->json('act_id')}/undo")
            ->assertOk()
            ->assertJsonPath('count', 8);
        self::assertSame(0, Entry::query()->whereNotNull('assignee_id')->count());
    }

    public function test_reassigning_while_it_is_walked_says_a_word_and_disturbs_nobody(): void
    {
        [$lead, $me, $other] = [$this->world->lead(), $this->world->person(), $this->world->person('other')];
        $entry = $this->world->entry($me, 3);
        $attempt = $this->as($me, 'POST', "/entries/{$entry->id}/attempts")->json('attempt.id');
        $this->as($lead, 'POST', '/cycles/TST-R1/entry-acts', [
            'act' => 'assign',
            'ids' => [$entry->id],
            'changes' => ['assignee_id' => $other->id, 'note' => 'The tide table is in the drawer'],
        ])->assertOk();
        $this->as($other, 'GET', '/projects/TST/today')->assertJsonPath('cycles.0.entries.0.handover', 'The tide table is in the drawer');
        $this->as($other, 'GET', '/notices')->assertJsonPath('unread', 1);
        $this->as($other, 'POST', '/notices/read')->assertNoContent();
        $this->as($other, 'GET', '/notices')->assertJsonPath('unread', 0)->assertJsonCount(1, 'items');
        $this->as($me, 'POST', "/attempts/{$attempt}/verdicts", ['round' => 1, 'step' => 1, 'verdict' => 'pass'])->assertOk();
        $gone = $this->world->person('gone');
        Membership::query()->where('user_id', $gone->id)->delete();
        $this->as($lead, 'POST', '/cycles/TST-R1/entry-acts', [
            'act' => 'assign',
            'ids' => [$entry->id],
            'changes' => ['assignee_id' => $gone->id],
        ])
            ->assertUnprocessable()
            ->assertJsonPath('errors', fn(array $e): bool => 'This person has left the project.' === $e['changes.assignee_id'][0]);
    }

    public function test_short_of_time_proposes_locks_and_applies(): void
    {
        [$lead, $me] = [$this->world->lead(), $this->world->person()];
        $entries = [];
        foreach (['low', 'critical', 'medium', 'high'] as $priority) {
            $entries[$priority] = $this->world->entry(null, 2);
            DB::table('cases')
                ->where('id', $entries[$priority]->case_id)
                ->update(['priority' => $priority, 'estimate_seconds' => 600]);
        }
        $this->world->needs($entries['high'], $entries['low'], 'only_if_passed');
        $ask = fn(array $more) => $this->as($lead, 'POST', '/cycles/TST-R1/short-plan-previews', ['minutes' => 20, ...$more]);
        $plan = $ask([])->assertOk()->assertJsonPath('seconds', 1200)->assertJsonPath('exact', false);
        self::assertSame([$entries['critical']->id, $entries['medium']->id], array_column((array) $plan->json('in'), 'id'));
        self::assertEqualsWithDelta(6 / 17, $plan->json('risk'), 0.001);
        $ask(['in' => [$entries['high']->id]])
            ->assertJsonPath('in.0.id', $entries['low']->id)
            ->assertJsonPath('in.1.id', $entries['high']->id);
        $ask(['in' => [$entries['high']->id], 'minutes' => 15])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['minutes']]);
        $ask(['out' => [$entries['critical']->id]])->assertJsonPath('out.0.why', 'kept out by hand');
        $done = $this->as($lead, 'POST', '/cycles/TST-R1/short-plans', ['minutes' => 20, 'people' => [$me->id]])
            ->assertOk()
            ->assertJsonPath('title', 'Planned for 20m: 2 in, 2 left out');
        self::assertSame([$entries['critical']->id, $entries['medium']->id], \array_slice($this->order(), 0, 2));
        self::assertSame(2, Entry::query()->where('assignee_id', $me->id)->count());
        $this->as($lead, 'POST', "/plan-acts/{$done->json('act_id')}/undo")->assertOk();
        self::assertSame($entries['low']->id, $this->order()[0]);
        self::assertSame(0, Entry::query()->whereNotNull('assignee_id')->count());
        // Who walks an entry goes on with it, whoever the rest is handed to.
        $walker = $this->world->person('walker');
        $this->as($walker, 'POST', "/entries/{$entries['critical']->id}/attempts")->assertCreated();
        $this->as($lead, 'POST', '/cycles/TST-R1/short-plans', ['minutes' => 20, 'people' => [$me->id]])->assertOk();
        self::assertSame(
            [$walker->id, $me->id],
            [$entries['critical']->refresh()->assignee_id, $entries['medium']->refresh()->assignee_id],
        );
    }

    public function test_estimates_come_from_what_was_walked(): void
    {
        [$lead, $me] = [$this->world->lead(), $this->world->person()];
        $entry = $this->world->entry($me, 1);
        DB::table('cases')->update(['estimate_seconds' => 1000]);
        $this->walk($me, $entry, 'pass', 200_000);
        $this->as($lead, 'POST', '/cycles/TST-R1/entries', [
            'picks' => ['cases' => [$entry->case_id], 'configurations' => $this->configurations(1)],
        ])->assertStatus(202);
        $this->as($lead, 'GET', '/cycles/TST-R1/entries')->assertJsonPath('items.1.estimate_seconds', 600);
    }

    private function walk(User $me, Entry $entry, string $verdict, int $ms = 0): void
    {
        $attempt = $this->as($me, 'POST', "/entries/{$entry->id}/attempts")->json('attempt.id');
        $this->as($me, 'POST', "/attempts/{$attempt}/verdicts", [
            'round' => 1,
            'step' => 1,
            'verdict' => $verdict,
            'happened' => 'x',
            'reason' => 'blocked' === $verdict ? 'Data missing' : '',
        ])->assertOk();
        $this->as($me, 'POST', "/attempts/{$attempt}/finish", ['active_ms' => $ms])->assertOk();
    }

    /**
     * @return list<string>
     */
    private function order(): array
    {
        return array_values(
            DB::table('entries')
                ->where('cycle_id', $this->world->cycle->id)
                ->orderBy('position')
                ->pluck('id')
                ->all(),
        );
    }

    /**
     * @return list<string>
     */
    private function configurations(int $n): array
    {
        $from = DB::table('configurations')->count();
        $ids = [];
        for ($i = 1; $i <= $n; $i++) {
            DB::table('configurations')->insert([
                'id' => ($ids[] = (string) \Illuminate\Support\Str::uuid7()),
                'project_id' => $this->world->project->id,
                'name' => 'Configuration ' . ($from + $i),
                'position' => $from + $i,
            ]);
        }

        return $ids;
    }
}
