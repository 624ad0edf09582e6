<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Cycles;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Cycles\Actions\InsertEntries;
use LucidStep\App\Areas\Cycles\Jobs\RunAddition;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * Planning a cycle: what is in it, in which order, whose it is.
 */
final class PlanTest extends FeatureTestCase
{
    public function test_a_cycle_is_planned_in_one_go_with_count_and_hours_before(): void
    {
        $lead = $this->world->lead();
        $tester = $this->world->person();
        $cases = [$this->world->case(2), $this->world->case(3), $this->world->case(0)];
        DB::table('cases')
            ->where('id', $cases[0]->id)
            ->update(['estimate_seconds' => 600]);
        $this->configurations(2);
        $configurations = DB::table('configurations')->pluck('id')->all();
        $picks = ['cases' => array_map(static fn($c): string => $c->id, $cases), 'configurations' => $configurations];
        $this->as($lead, 'POST', '/projects/TST/selection-counts', ['picks' => $picks])
            ->assertOk()
            ->assertJsonPath('capacity_seconds', 0)
            ->assertJsonPath('cases', 2)
            ->assertJsonPath('entries', 4)
            ->assertJsonPath('seconds', 2 * (600 + 180))
            ->assertJsonPath('refused.0.why', 'It has no steps yet.');
        // Tuesday to Friday, one of them off: three days of six hours.
        Membership::query()
            ->where('user_id', $tester->id)
            ->update(['days_off' => json_encode(['2026-12-02'])]);
        $this->as($lead, 'POST', '/projects/TST/selection-counts', [
            'picks' => $picks,
            'starts_on' => '2026-12-01',
            'ends_on' => '2026-12-06',
            'testers' => [$tester->id],
        ])
            ->assertJsonPath('days', 4)
            ->assertJsonPath('capacity_seconds', 3 * 6 * 3600);
        $this->as($lead, 'POST', '/projects/TST/cycles', [
            'name' => 'Smoke',
            'starts_on' => '2026-12-01',
            'ends_on' => '2026-12-04',
            'build_id' => $this->world->build->id,
            'testers' => [$tester->id],
            'watchers' => [$lead->id],
            'default_assignee_id' => $tester->id,
            'picks' => $picks,
        ])
            ->assertCreated()
            ->assertJsonPath('cycle.key', 'TST-R2')
            ->assertJsonPath('cycle.state', 'draft')
            ->assertJsonPath('cycle.total', 4)
            ->assertJsonPath('testers.0.id', $tester->id);
        $this->as($lead, 'GET', '/cycles/TST-R2/plan')->assertOk()->assertJsonPath('left', 4)->assertJsonPath('seconds_left', 1560);
        $entries = $this->as($lead, 'GET', '/cycles/TST-R2/entries')->assertJsonPath('items.0.assignee.id', $tester->id);
        self::assertSame([1, 2, 3, 4], array_column((array) $entries->json('items'), 'position'));
    }

    public function test_dates_are_checked_against_the_milestone_by_field(): void
    {
        $lead = $this->world->lead();
        $milestone = $this->as($lead, 'POST', '/projects/TST/milestones', [
            'name' => 'Opening',
            'type' => 'opening',
            'due_on' => '2026-12-10',
        ])
            ->assertCreated()
            ->json('id');
        $fields = ['name' => 'Late', 'starts_on' => '2026-12-08', 'ends_on' => '2026-12-12', 'milestone_id' => $milestone];
        $this->as($lead, 'POST', '/projects/TST/cycles', $fields)
            ->assertUnprocessable()
            ->assertJsonPath('errors.ends_on.0', '“Late” would end on 2026-12-12, after “Opening” on 2026-12-10.');
        $this->as($lead, 'POST', '/projects/TST/cycles', [...$fields, 'ends_on' => '2026-12-01'])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['ends_on']]);
        $this->as($lead, 'POST', '/projects/TST/cycles', [
            ...$fields,
            'ends_on' => '2026-12-10',
            'testers' => [$this->world->person('reader', Role::Reader)->id],
        ])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['testers.0']]);
        $this->as($lead, 'POST', '/projects/TST/cycles', [...$fields, 'ends_on' => '2026-12-10'])
            ->assertCreated()
            ->assertJsonPath('milestone.name', 'Opening');
        $this->as($lead, 'PATCH', "/milestones/{$milestone}", ['name' => 'Opening', 'due_on' => '2026-12-09'])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['due_on']]);
        $this->as($lead, 'DELETE', "/milestones/{$milestone}")
            ->assertConflict()
            ->assertJsonPath('detail', '“Opening” stays: it holds Late.');
        $this->as($this->world->person(), 'POST', '/projects/TST/cycles', $fields)->assertForbidden();
    }

    public function test_adding_later_keeps_what_is_walked_and_adds_nothing_twice(): void
    {
        [$lead, $me] = [$this->world->lead(), $this->world->person()];
        $entry = $this->world->entry($me, 1);
        $this->walk($me, $entry, 'pass');
        $new = $this->world->case(1);
        $this->as($lead, 'POST', "/cycles/{$this->world->cycle->id}/entries", ['picks' => ['cases' => [$entry->case_id, $new->id]]])
            ->assertStatus(202)
            ->assertJsonPath('state', 'done')
            ->assertJsonPath('total', 1);
        self::assertSame(['pass', 'not_run'], DB::table('entries')->orderBy('position')->pluck('display_state')->all());
        $this->as($lead, 'POST', "/cycles/{$this->world->cycle->id}/entries", ['picks' => ['cases' => [$entry->case_id, $new->id]]])
            ->assertUnprocessable()
            ->assertJsonPath('errors.picks.0', 'All of these are in the cycle already.');
        $this->as($lead, 'POST', "/cycles/{$this->world->cycle->id}/entries", [
            'picks' => ['earlier' => ['cycle' => 'TST-R1', 'display_state' => ['pass']], 'configurations' => [$this->configurations(1)[0]]],
        ])
            ->assertStatus(202)
            ->assertJsonPath('total', 1);
    }

    public function test_many_are_added_by_a_job_that_can_be_stopped_and_then_none_stays(): void
    {
        $lead = $this->world->lead();
        $cases = [];
        for ($i = 0; $i < 11; $i++) {
            $cases[] = $this->world->case(1)->id;
        }
        $picks = ['cases' => $cases, 'configurations' => $this->configurations(300)];
        config(['queue.default' => 'null']);
        $said = $this->as($lead, 'POST', "/cycles/{$this->world->cycle->id}/entries", ['picks' => $picks])
            ->assertStatus(202)
            ->assertJsonPath('state', 'running')
            ->assertJsonPath('total', 3300);
        $this->as($lead, 'POST', "/cycles/{$this->world->cycle->id}/moves", ['to' => 'closed'])
            ->assertConflict()
            ->assertJsonPath('type', 'urn:lucid-step:problem:adding');
        $this->as($lead, 'POST', "/entry-additions/{$said->json('id')}/cancel")
            ->assertOk()
            ->assertJsonPath('state', 'stopping');
        (new RunAddition((string) $said->json('id')))->handle(app(InsertEntries::class));
        $this->as($lead, 'GET', "/entry-additions/{$said->json('id')}")
            ->assertJsonPath('state', 'cancelled')
            ->assertJsonPath('done', 0);
        self::assertSame(0, Entry::query()->count());
        $said = $this->as($lead, 'POST', "/cycles/{$this->world->cycle->id}/entries", ['picks' => $picks]);
        (new RunAddition((string) $said->json('id')))->handle(app(InsertEntries::class));
        $this->as($lead, 'GET', "/entry-additions/{$said->json('id')}")
            ->assertJsonPath('state', 'done')
            ->assertJsonPath('done', 3300);
        self::assertSame(3300, Entry::query()->count());
        self::assertLessThanOrEqual(
            24,
            $this->queries(
                fn() => $this->as($lead, 'GET', "/cycles/{$this->world->cycle->id}/plan")
                    ->assertOk()
                    ->assertJsonPath('left', 3300),
            ),
        );
        self::assertLessThanOrEqual(
            13,
            $this->queries(
                fn() => $this->as($lead, 'GET', "/cycles/{$this->world->cycle->id}/entries?size=500")
                    ->assertOk()
                    ->assertJsonPath('total', 3300)
                    ->assertJsonCount(500, 'items'),
            ),
        );
    }

    public function test_order_conditions_and_windows_are_set_on_many_and_undone_as_one(): void
    {
        $lead = $this->world->lead();
        [$a, $b, $c] = [$this->world->entry(), $this->world->entry(), $this->world->entry()];
        $act = fn(string $act, array $ids, array $changes = []) => $this->as($lead, 'POST', '/cycles/TST-R1/entry-acts', [
            'act' => $act,
            'ids' => array_map(static fn(Entry $e): string => $e->id, $ids),
            'changes' => $changes,
        ]);
        $act('condition', [$a, $b], ['needs_id' => $c->id, 'kind' => 'only_if_passed'])
            ->assertOk()
            ->assertJsonPath('count', 2);
        $act('condition', [$c], ['needs_id' => $c->id, 'kind' => 'after'])
            ->assertUnprocessable()
            ->assertJsonPath('errors', ['changes.needs_id' => ["{$c->case->key} would wait for itself."]]);
        $act('condition', [$c], ['needs_id' => $a->id, 'kind' => 'after'])
            ->assertUnprocessable()
            ->assertJsonPath('errors', fn(array $e): bool => str_contains($e['changes.needs_id'][0], '→'));
        $this->as($lead, 'GET', '/cycles/TST-R1/plan')
            ->assertJsonPath('faults_count', 2)
            ->assertJsonPath('faults.0.needs_case_key', 'TST-C3');
        $this->as($lead, 'GET', '/cycles/TST-R1/entries')
            ->assertJsonPath('items.0.readiness', 'held')
            ->assertJsonPath('items.0.needs.0.position', 3);
        $mended = $act('sort_by_dependencies', [])->assertOk();
        self::assertSame([$c->id, $a->id, $b->id], $this->order());
        $this->as($lead, 'GET', '/cycles/TST-R1/plan')->assertJsonPath('faults', []);
        $this->as($lead, 'POST', "/plan-acts/{$mended->json('act_id')}/undo")->assertOk();
        self::assertSame([$a->id, $b->id, $c->id], $this->order());
        $this->as($lead, 'POST', "/plan-acts/{$mended->json('act_id')}/undo")->assertConflict();
        $act('move', [$c], ['before_id' => $a->id])->assertOk();
        self::assertSame([$c->id, $a->id, $b->id], $this->order());
        $act('window', [$a], ['not_before' => '2026-12-02T09:00:00Z', 'not_after' => '2026-12-01T09:00:00Z'])
            ->assertUnprocessable()
            ->assertJsonStructure(['errors' => ['changes.not_after']]);
        $window = $act('window', [$a, $b], ['not_before' => Carbon::now()->addDay()->toIso8601ZuluString()])->assertOk();
        $act('window', [$b], [])->assertOk();
        $this->as($lead, 'POST', "/plan-acts/{$window->json('act_id')}/undo")
            ->assertOk()
            ->assertJsonPath('count', 1)
            ->assertJsonPath('refused.0.id', $b->id)
            ->assertJsonPath('refused.0.why', 'It was changed again since.');
        $act('no_condition', [$a], ['needs_id' => $c->id])->assertOk();
        self::assertSame([$b->id], DB::table('entry_conditions')->pluck('entry_id')->all());
        $this->as($lead, 'GET', '/cycles/TST-R1/log')->assertOk()->assertJsonPath('0.text', 'Took conditions off 1 entry');
        $this->as($this->world->person(), 'POST', '/cycles/TST-R1/entry-acts', ['act' => 'sort_by_dependencies'])->assertForbidden();
    }

    public function test_removing_leaves_what_was_walked_and_comes_back_with_its_conditions(): void
    {
        [$lead, $me] = [$this->world->lead(), $this->world->person()];
        [$walked, $open, $last] = [$this->world->entry($me, 1), $this->world->entry($me), $this->world->entry()];
        $this->world->needs($last, $open, 'after');
        $this->walk($me, $walked, 'pass');
        $act = $this->as($lead, 'POST', '/cycles/TST-R1/entry-acts', ['act' => 'remove', 'ids' => [$walked->id, $open->id]])
            ->assertOk()
            ->assertJsonPath('count', 1)
            ->assertJsonPath('refused.0.id', $walked->id);
        self::assertSame([$walked->id, $last->id], $this->order());
        $this->as($lead, 'POST', "/plan-acts/{$act->json('act_id')}/undo")
            ->assertOk()
            ->assertJsonPath('count', 1);
        self::assertSame([$walked->id, $open->id, $last->id], $this->order());
        self::assertSame(1, DB::table('entry_conditions')->count());
        self::assertSame($me->id, $open->refresh()->assignee_id);
    }

    public function test_two_leads_changing_the_same_cycle_lose_nothing(): void
    {
        [$lead, $other] = [$this->world->lead(), $this->world->person('second', Role::Lead)];
        $revision = $this->as($lead, 'GET', '/cycles/TST-R1/plan')->json('cycle.revision');
        $this->as($other, 'PATCH', '/cycles/TST-R1', ['revision' => $revision, 'name' => 'Renamed'])->assertOk();
        $this->as($lead, 'PATCH', '/cycles/TST-R1', ['revision' => $revision, 'description' => 'What I typed'])
            ->assertStatus(412)
            ->assertJsonPath('revision', $revision + 1);
        $this->as($lead, 'PATCH', '/cycles/TST-R1', ['revision' => $revision + 1, 'description' => 'What I typed'])
            ->assertOk()
            ->assertJsonPath('cycle.name', 'Renamed')
            ->assertJsonPath('cycle.description', 'What I typed');
    }

    public function test_cycles_are_extended_together_and_that_is_undone(): void
    {
        $lead = $this->world->lead();
        $ends = $this->world->cycle->ends_on->toDateString();
        $done = $this->as($lead, 'POST', '/projects/TST/cycle-acts', ['ids' => [$this->world->cycle->id], 'days' => 3])
            ->assertOk()
            ->assertJsonPath('title', 'Extended 1 cycle by 3 days');
        self::assertSame(
            $this->world->cycle->ends_on->copy()->addDays(3)->toDateString(),
            Cycle::query()->firstOrFail()->ends_on->toDateString(),
        );
        $this->as($lead, 'POST', '/projects/TST/cycle-acts', ['ids' => [$this->world->cycle->id], 'days' => -30])
            ->assertOk()
            ->assertJsonPath('count', 0)
            ->assertJsonPath('refused.0.key', 'TST-R1');
        $this->as($lead, 'POST', "/plan-acts/{$done->json('act_id')}/undo")->assertOk();
        self::assertSame($ends, Cycle::query()->firstOrFail()->ends_on->toDateString());
    }

    public function test_usual_conditions_of_cases_come_along_and_loops_of_them_are_named(): void
    {
        $lead = $this->world->lead();
        [$create, $edit] = [$this->world->case(1), $this->world->case(1)];
        $this->as($lead, 'PUT', "/cases/{$edit->key}/needs", [
            'needs' => [['case' => mb_strtolower($create->key), 'kind' => 'only_if_passed']],
        ])
            ->assertOk()
            ->assertJsonPath('0.key', $create->key);
        $this->as($lead, 'PUT', "/cases/{$create->key}/needs", ['needs' => [['case' => $edit->key, 'kind' => 'after']]])
            ->assertUnprocessable()
            ->assertJsonPath('errors.needs.0', fn(string $e): bool => str_contains($e, '→'));
        $this->as($lead, 'PUT', "/cases/{$create->key}/needs", [
            'needs' => [['case' => 'TST-C999', 'kind' => 'after']],
        ])->assertUnprocessable();
        $picks = ['cases' => [$edit->id, $create->id], 'usual' => true];
        $this->as($lead, 'POST', '/projects/TST/selection-counts', ['picks' => $picks])->assertJsonPath('usual', 1);
        $this->as($lead, 'POST', '/cycles/TST-R1/entries', ['picks' => $picks])
            ->assertStatus(202)
            ->assertJsonPath('conditions', 1);
        $this->as($lead, 'GET', '/cycles/TST-R1/entries')->assertJsonPath('items.1.needs.0.kind', 'only_if_passed');
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
}
