<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Planning;

use LucidStep\Core\Planning\AssignableEntry;
use LucidStep\Core\Planning\Assignee;
use LucidStep\Core\Planning\Balance;
use LucidStep\Core\Planning\Condition;
use LucidStep\Core\Planning\ConditionKind;
use LucidStep\Core\Planning\Conditions;
use LucidStep\Core\Planning\NobodyToAssign;
use PHPUnit\Framework\TestCase;

final class BalanceTest extends TestCase
{
    public function test_the_longest_goes_first_to_whoever_is_loaded_least(): void
    {
        $given = self::give(['a' => 100, 'b' => 100], [['e1', 10], ['e2', 60], ['e3', 50], ['e4', 40]]);
        self::assertSame(['e2' => 'a', 'e3' => 'b', 'e4' => 'b', 'e1' => 'a'], $given);
    }

    public function test_capacity_counts_and_who_has_none_gets_nothing(): void
    {
        $given = self::give(['a' => 300, 'b' => 100, 'c' => 0], array_map(static fn(int $i): array => ["e{$i}", 10], range(1, 40)));
        $n = array_count_values($given);
        self::assertSame(['a' => 30, 'b' => 10], [...['a' => 0, 'b' => 0], ...$n]);
        $this->expectException(NobodyToAssign::class);
        self::give(['a' => 0], [['e1', 10]]);
    }

    public function test_what_is_joined_stays_together_and_goes_to_who_has_part_of_it(): void
    {
        $given = self::give(['a' => 100, 'b' => 100], [['x', 10, 'b'], ['y', 10], ['z', 10], ['q', 30]], ['y>x', 'z>y']);
        self::assertSame(['q' => 'a', 'y' => 'b', 'z' => 'b'], self::sorted($given));
    }

    public function test_a_group_too_long_for_one_person_is_placed_entry_by_entry(): void
    {
        $given = self::give(['a' => 100, 'b' => 100], [['x', 30], ['y', 30], ['z', 30]], ['y>x', 'z>y']);
        self::assertCount(2, array_unique($given), 'Together they would be twice the fair load.');
    }

    public function test_what_somebody_has_stays_and_counts(): void
    {
        $given = self::give(['a' => 100, 'b' => 100], [['e1', 60, 'a'], ['e2', 20], ['e3', 20], ['e4', 20]]);
        self::assertSame(['e2' => 'b', 'e3' => 'b', 'e4' => 'b'], self::sorted($given));
    }

    /**
     * Longest first is within 4/3 of the best there is (R. L. Graham, 1969).
     */
    public function test_property_unjoined_work_of_equal_people_is_within_four_thirds_of_the_best(): void
    {
        mt_srand(3);
        for ($run = 0; $run < 120; $run++) {
            $people = mt_rand(2, 3);
            $times = array_map(static fn(): int => mt_rand(1, 40), range(1, mt_rand(1, 8)));
            $given = self::give(
                array_combine(array_map(static fn(int $i): string => "p{$i}", range(1, $people)), array_fill(0, $people, 100)),
                array_map(static fn(int $i, int $t): array => ["e{$i}", $t], array_keys($times), $times),
            );
            self::assertCount(\count($times), $given);
            $loads = [];
            foreach ($times as $i => $t) {
                $loads[$given["e{$i}"]] = ($loads[$given["e{$i}"]] ?? 0) + $t;
            }
            self::assertLessThanOrEqual((4 / 3) * self::best($times, $people) + 1e-9, max([0, ...$loads]));
        }
    }

    /**
     * @param  list<int>  $times
     */
    private static function best(array $times, int $people): int
    {
        $best = \PHP_INT_MAX;
        for ($way = 0; $way < $people ** \count($times); $way++) {
            $loads = array_fill(0, $people, 0);
            $rest = $way;
            foreach ($times as $t) {
                $loads[$rest % $people] += $t;
                $rest = intdiv($rest, $people);
            }
            $best = min($best, max([0, ...$loads]));
        }

        return $best;
    }

    /**
     * @param  array<string, int>  $people
     * @param  list<array{0: string, 1: int, 2?: string}>  $work
     * @param  list<string>  $conditions
     *
     * @return array<string, string>
     */
    private static function give(array $people, array $work, array $conditions = []): array
    {
        return Balance::of(
            array_map(static fn(string $id, int $c): Assignee => new Assignee($id, $c), array_keys($people), $people),
            array_map(static fn(array $w): AssignableEntry => new AssignableEntry($w[0], $w[1], $w[2] ?? null), $work),
            Conditions::of(array_map(static fn(string $c): Condition => new Condition($c[0], $c[2], ConditionKind::After), $conditions)),
        );
    }

    /**
     * @param  array<string, string>  $given
     *
     * @return array<string, string>
     */
    private static function sorted(array $given): array
    {
        ksort($given);

        return $given;
    }
}
