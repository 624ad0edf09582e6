<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Planning;

use LucidStep\Core\Planning\Candidate;
use LucidStep\Core\Planning\Condition;
use LucidStep\Core\Planning\ConditionKind;
use LucidStep\Core\Planning\Conditions;
use LucidStep\Core\Planning\ShortOfTime;
use LucidStep\Core\Planning\TooLittleTime;
use PHPUnit\Framework\TestCase;

final class ShortOfTimeTest extends TestCase
{
    public function test_base_is_priority_times_one_and_fails(): void
    {
        self::assertSame([8.0, 15.0, 2.0], [Candidate::base(8, 0), Candidate::base(5, 2), Candidate::base(1, 1)]);
    }

    public function test_a_requirement_counts_half_the_largest_base_that_covers_it(): void
    {
        self::assertSame(8 + 3 + 4 + 1.5, ShortOfTime::worth([new Candidate('a', 60, 8, ['r']), new Candidate('b', 60, 3, ['r', 's'])]));
    }

    public function test_greedy_alone_would_miss_the_best(): void
    {
        // By worth per time, "a" goes first and leaves no room for the two that are worth more together.
        $plan = ShortOfTime::plan([new Candidate('a', 60, 7), new Candidate('b', 50, 5), new Candidate('c', 50, 5)], 100);
        self::assertEqualsCanonicalizing(['b', 'c'], $plan->order);
        self::assertSame(['a'], $plan->left);
        self::assertEqualsWithDelta(7 / 17, $plan->risk(), 1e-9);
    }

    public function test_an_entry_brings_along_what_it_needs_and_what_cannot_be_met_is_out(): void
    {
        $all = [
            new Candidate('edit', 10, 8, [], ['create']),
            new Candidate('create', 10, 1),
            new Candidate('lost', 1, 100, [], ['failed']),
            new Candidate('far', 10, 1),
        ];
        $plan = ShortOfTime::plan($all, 20, [], [], Conditions::of([new Condition('edit', 'create', ConditionKind::OnlyIfPassed)]));
        self::assertSame(['create', 'edit'], $plan->order);
        self::assertSame(['lost', 'far'], $plan->left);
    }

    public function test_what_is_locked_in_is_in_and_what_is_locked_out_takes_others_with_it(): void
    {
        $all = [new Candidate('a', 10, 8), new Candidate('b', 10, 1), new Candidate('c', 10, 5, [], ['a'])];
        self::assertSame(['b'], ShortOfTime::plan($all, 10, ['b'])->order);
        self::assertSame(['b'], ShortOfTime::plan($all, 30, [], ['a'])->order);
        self::assertSame(['a', 'c'], ShortOfTime::plan($all, 20, ['c'])->order);
        $this->expectException(TooLittleTime::class);
        ShortOfTime::plan($all, 19, ['c']);
    }

    public function test_property_exact_without_conditions_and_never_over_the_budget(): void
    {
        mt_srand(5);
        for ($run = 0; $run < 150; $run++) {
            $candidates = self::some(mt_rand(1, 9), false);
            $budget = mt_rand(0, 200);
            $plan = ShortOfTime::plan($candidates, $budget);
            self::assertLessThanOrEqual($budget, $plan->seconds);
            $best = 0.0;
            for ($set = 0; $set < 2 ** \count($candidates); $set++) {
                $in = array_values(array_filter($candidates, static fn(int $i): bool => 1 === (($set >> $i) & 1), \ARRAY_FILTER_USE_KEY));
                if (array_sum(array_map(static fn(Candidate $c): int => $c->seconds, $in)) <= $budget) {
                    $best = max($best, ShortOfTime::worth($in));
                }
            }
            self::assertEqualsWithDelta($best, $plan->worth, 1e-6);
        }
    }

    public function test_property_conditions_hold_in_the_plan_and_in_its_order(): void
    {
        mt_srand(9);
        for ($run = 0; $run < 80; $run++) {
            $candidates = self::some(mt_rand(2, 40), true);
            $conditions = [];
            foreach ($candidates as $c) {
                foreach ($c->needs as $need) {
                    $conditions[] = new Condition($c->id, $need, ConditionKind::OnlyIfPassed);
                }
            }
            $budget = mt_rand(20, 400);
            $plan = ShortOfTime::plan($candidates, $budget, [], [], Conditions::of($conditions));
            self::assertLessThanOrEqual($budget, $plan->seconds);
            $place = array_flip($plan->order);
            foreach ($conditions as $c) {
                if (isset($place[$c->entry])) {
                    self::assertArrayHasKey($c->needs, $place);
                    self::assertLessThan($place[$c->entry], $place[$c->needs]);
                }
            }
            self::assertSame(\count($candidates), \count($plan->order) + \count($plan->left));
            $taken = array_values(array_filter($candidates, static fn(Candidate $c): bool => isset($place[$c->id])));
            self::assertEqualsWithDelta(ShortOfTime::worth($taken), $plan->worth, 1e-6);
        }
    }

    public function test_twenty_candidates_are_decided_exactly_in_reasonable_work(): void
    {
        mt_srand(21);
        $candidates = array_map(static fn(int $i): Candidate => new Candidate("c{$i}", 50 + mt_rand(0, 3), 5.0), range(1, 20));
        $plan = ShortOfTime::plan($candidates, 500);
        $times = array_map(static fn(Candidate $c): int => $c->seconds, $candidates);
        sort($times);
        $fit = 0;
        for ($sum = 0; $fit < 20 && $sum + $times[$fit] <= 500; $fit++) {
            $sum += $times[$fit];
        }
        self::assertSame(5.0 * $fit, $plan->worth, 'All are worth the same: as many of the short ones as fit.');
    }

    /**
     * @return list<Candidate>
     */
    private static function some(int $n, bool $needs): array
    {
        $all = [];
        for ($i = 0; $i < $n; $i++) {
            $all[] = new Candidate(
                "c{$i}",
                mt_rand(1, 60),
                (float) [8, 5, 3, 1][mt_rand(0, 3)] * mt_rand(1, 3),
                array_values(array_filter(['r1', 'r2', 'r3', 'r4'], static fn(): bool => 0 === mt_rand(0, 3))),
                $needs && $i > 0 && 0 === mt_rand(0, 2) ? ['c' . mt_rand(0, $i - 1)] : [],
            );
        }

        return array_map(
            static fn(Candidate $c): Candidate => new Candidate($c->id, $c->seconds, $c->base, array_values($c->requirements), $c->needs),
            $all,
        );
    }
}
