<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Casebook;

use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * What in the casebook needs a look: cases not walked for long, likely doubles, suites that changed by themselves.
 */
final class CareTest extends FeatureTestCase
{
    public function test_stale_cases_and_likely_doubles_are_pointed_out(): void
    {
        $me = $this->world->person();
        $steps = [['action' => 'Open the page'], ['action' => 'Choose a sailing', 'expected' => 'It is chosen']];
        $a = $this->as($me, 'POST', '/projects/TST/cases', ['title' => 'Book one adult', 'steps' => $steps])->json('case.key');
        $b = $this->as($me, 'POST', '/projects/TST/cases', ['title' => 'Book an adult', 'steps' => $steps])->json('case.key');
        $this->as($me, 'POST', '/projects/TST/cases', ['title' => 'Refund a vehicle', 'steps' => $steps])->assertCreated();
        $this->as($me, 'GET', '/projects/TST/case-care')
            ->assertJsonCount(1, 'doubles')
            ->assertJsonPath('doubles.0.cases.0.key', $a)
            ->assertJsonPath('doubles.0.cases.1.key', $b)
            ->assertJsonCount(0, 'stale');
        $pair = DB::table('cases')
            ->whereIn('key', [$a, $b])
            ->pluck('id')
            ->all();
        $this->as($me, 'POST', '/projects/TST/case-differences', ['cases' => $pair])->assertNoContent();
        $this->as($me, 'GET', '/projects/TST/case-care')->assertJsonCount(0, 'doubles');
        $this->travel(100)->days();
        $this->as($me, 'GET', '/projects/TST/case-care')->assertJsonCount(3, 'stale');
        $this->as($me, 'GET', '/projects/TST/case-care?days=200')->assertJsonCount(0, 'stale');
    }

    public function test_many_that_are_alike_are_one_group_and_differ_on_purpose_as_one(): void
    {
        $me = $this->world->person();
        $steps = [['action' => 'Open the page'], ['action' => 'Choose a sailing', 'expected' => 'It is chosen']];
        $make = fn(string $title): string => (string) $this->as($me, 'POST', '/projects/TST/cases', [
            'title' => $title,
            'steps' => $steps,
        ])->json('case.key');
        $ids = static fn(): array => DB::table('cases')->where('title', 'like', 'A sailing%')->orderBy('number')->pluck('id')->all();
        foreach (['Holm', 'Farra', 'Sule', 'Brei', 'Unst', 'Yell', 'Foula'] as $to) {
            $make("A sailing to {$to} is booked");
        }
        $all = array_map(static fn(int $n): string => "TST-C{$n}", range(1, 7));
        self::assertSame([$all], $this->alike());
        $this->as($me, 'POST', '/projects/TST/case-differences', ['cases' => [$ids()[0]]])->assertUnprocessable();
        $this->as($this->world->person('dev', Role::Developer), 'POST', '/projects/TST/case-differences', [
            'cases' => $ids(),
        ])->assertForbidden();
        $this->as($me, 'POST', '/projects/TST/case-differences', ['cases' => $ids()])->assertNoContent();
        self::assertSame([], $this->alike());
        // It holds when their words come nearer still, and not for one that comes new.
        $this->as($me, 'PUT', '/cases/TST-C7', ['title' => 'A sailing to Holm is booked', 'steps' => $steps, 'revision' => 1])->assertOk();
        self::assertCount(0, $this->alike());
        $make('A sailing to Hascosay is booked');
        self::assertGreaterThan(0, \count($this->alike()));
        $this->as($me, 'POST', '/projects/TST/case-differences', [
            'cases' => \array_slice($ids(), 0, 7),
            'differ' => false,
        ])->assertNoContent();
        self::assertSame([[...$all, 'TST-C8']], $this->alike());
    }

    public function test_what_a_live_suite_gained_waits_for_a_lead_until_it_is_accepted(): void
    {
        $lead = $this->world->lead();
        $make = fn(string $priority): TestResponse => $this->as($lead, 'POST', '/projects/TST/cases', [
            'title' => 'x',
            'priority' => $priority,
        ]);
        $make('high')->assertCreated();
        $suite = $this->as($lead, 'POST', '/projects/TST/suites', [
            'name' => 'Urgent',
            'kind' => 'rule',
            'filter' => ['priority' => 'high'],
        ])
            ->assertCreated()
            ->json('suite.id');
        $waits = fn(): array => array_column(
            (array) $this->as($lead, 'GET', '/projects/TST/queue')->assertOk()->json('items'),
            'text',
            'title',
        );
        self::assertSame([], $waits());
        $make('high');
        $make('high');
        $make('low');
        self::assertSame(['Urgent' => '2 cases more than when it was accepted'], $waits());
        $this->as($lead, 'PUT', '/cases/TST-C2', ['title' => 'x', 'priority' => 'low', 'revision' => 1])->assertOk();
        self::assertSame(['Urgent' => '1 case more than when it was accepted'], $waits());
        $this->as($lead, 'POST', "/suites/{$suite}/acceptances")->assertOk();
        self::assertSame([], $waits());
        $this->as($lead, 'PUT', '/cases/TST-C3', ['title' => 'x', 'priority' => 'low', 'revision' => 1])->assertOk();
        self::assertSame(['Urgent' => '1 case less than when it was accepted'], $waits());
    }

    /**
     * @return list<list<string>> keys of likely doubles
     */
    private function alike(): array
    {
        $care = $this->as($this->world->person(), 'GET', '/projects/TST/case-care')->assertOk();

        return array_values(array_map(static fn(array $d): array => array_column($d['cases'], 'key'), (array) $care->json('doubles')));
    }
}
