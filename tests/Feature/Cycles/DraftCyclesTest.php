<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Cycles;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\TestCase;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\ApiOperations;
use LucidStep\Tests\Support\Everything;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * A cycle that is still being planned is the leads' alone: nobody else is told of it by any address.
 */
final class DraftCyclesTest extends FeatureTestCase
{
    use ApiOperations;
    use Everything;

    private const NAME = 'Quiet plan of 2031';

    protected function setUp(): void
    {
        parent::setUp();
        $this->spec = self::description();
        $this->ids = $this->everything($this->world);
        $lead = $this->world->lead();
        $case = TestCase::query()->where('key', $this->ids['case'])->firstOrFail();
        $milestone = (string) DB::table('milestones')->where('name', 'Theirs')->value('id');
        $plan = $this->as($lead, 'POST', '/projects/TST/cycles', [
            'name' => self::NAME,
            'starts_on' => '2026-12-01',
            'ends_on' => '2026-12-20',
            'milestone_id' => $milestone,
            'testers' => [$this->ids['person']],
            'picks' => ['cases' => [$case->id]],
        ])->assertCreated();
        $this->ids['cycle'] = (string) $plan->json('cycle.key');
        $this->ids['entry'] = (string) DB::table('entries')->where('cycle_id', $plan->json('cycle.id'))->value('id');
        $this->ids['planAct'] = (string) $this->as($lead, 'POST', "/cycles/{$this->ids['cycle']}/entry-acts", [
            'act' => 'assign',
            'ids' => [$this->ids['entry']],
            'changes' => ['assignee_id' => $this->ids['person']],
        ])->json('act_id');
        $this->ids['addition'] = (string) $this->as($lead, 'POST', "/cycles/{$this->ids['cycle']}/entries", [
            'picks' => ['cases' => [$case->id], 'configurations' => [$this->ids['configuration']]],
        ])->json('id');
        self::assertNotContains('', $this->ids);
    }

    public function test_no_address_tells_anybody_but_leads_of_a_cycle_that_is_being_planned(): void
    {
        $told = ['TST-R1' => 0];
        $faults = [];
        foreach ([Role::Reader, Role::Developer, Role::Tester, Role::Lead] as $role) {
            $person = Role::Tester === $role ? $this->world->person() : $this->world->person("a {$role->value}", $role);
            foreach ($this->operations(['get', 'post']) as [$method, $path, $operation]) {
                if ('POST' === $method && 1 !== preg_match('/previews|counts|checks/', $path)) {
                    continue;
                }
                foreach ($this->questions($path) as $query) {
                    $body = 'POST' === $method ? [...$this->plausible($operation), 'cycle_id' => $this->draft()] : [];
                    DB::beginTransaction();
                    $answer = $this->as($person, $method, $this->real($path) . $query, $body);
                    DB::rollBack();
                    $said = (string) $answer->baseResponse->getContent();
                    foreach ([self::NAME, '"' . $this->ids['cycle'], $this->draft(), $this->ids['entry']] as $secret) {
                        // What was asked for by its address may be said back in a refusal.
                        if (!str_contains($said, $secret)) {
                            continue;
                        }
                        $told[$role->value] = ($told[$role->value] ?? 0) + 1;
                        if (Role::Lead !== $role) {
                            $faults[] = "{$method} {$path}{$query} tells a {$role->value} of {$secret} ({$answer->getStatusCode()})";
                        }
                    }
                }
            }
        }
        self::assertSame([], array_values(array_unique($faults)));
        self::assertGreaterThan(20, $told['lead'] ?? 0, 'leads are told of it');
    }

    private function draft(): string
    {
        return (string) DB::table('cycles')->where('name', self::NAME)->value('id');
    }

    /**
     * @return list<string> what to ask an address for
     */
    private function questions(string $path): array
    {
        return match ($path) {
            '/cycles/{cycle}/comparison' => ['?with=TST-R1'],
            '/projects/{project}/go-to' => ['?q=quiet', "?q={$this->ids['cycle']}"],
            default => [''],
        };
    }

    public function test_a_released_cycle_is_not_compared_with_one_that_is_being_planned(): void
    {
        foreach ([$this->ids['cycle'], $this->draft()] as $with) {
            $this->as($this->world->person(), 'GET', "/cycles/TST-R1/comparison?with={$with}")
                ->assertUnprocessable()
                ->assertJsonPath('errors.with.0', 'Choose another cycle of this project.');
            $this->as($this->world->lead(), 'GET', "/cycles/TST-R1/comparison?with={$with}")->assertOk();
        }
    }

    public function test_nothing_of_it_is_found_by_its_id(): void
    {
        foreach (["/entry-additions/{$this->ids['addition']}", "/entries/{$this->ids['entry']}", "/cycles/{$this->draft()}"] as $path) {
            $this->as($this->world->person(), 'GET', $path)->assertNotFound();
            $this->as($this->world->lead(), 'GET', $path)->assertOk();
        }
        $this->as($this->world->person(), 'POST', "/plan-acts/{$this->ids['planAct']}/undo")->assertNotFound();
    }
}
