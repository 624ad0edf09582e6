<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Planning;

use LucidStep\Core\Casebook\Step;
use LucidStep\Core\Execution\Carried;
use LucidStep\Core\Planning\Cascade;
use LucidStep\Core\Planning\Condition;
use LucidStep\Core\Planning\ConditionKind;
use LucidStep\Core\Planning\Conditions;
use LucidStep\Core\Planning\CycleState;
use PHPUnit\Framework\TestCase;

final class CascadeTest extends TestCase
{
    public function test_it_follows_needed_passes_alone_and_stops_only_what_is_open(): void
    {
        $conditions = self::of('b+a', 'c+b', 'd-c', 'e+c', 'f+e');
        $open = ['b' => true, 'c' => false, 'd' => true, 'e' => true, 'f' => true];
        self::assertSame(['b', 'e', 'f'], Cascade::reach('a', $conditions, $open), 'Through what is done, not through "after".');
        self::assertSame([], Cascade::reach('f', $conditions, $open));
    }

    public function test_a_cause_stands_while_it_failed_and_is_still_needed(): void
    {
        $conditions = self::of('b+a', 'c+b', 'c+x');
        self::assertSame(['a'], Cascade::standing('c', ['a', 'x'], $conditions, ['a' => 'fail', 'x' => 'pass']));
        self::assertSame([], Cascade::standing('c', ['a'], $conditions, ['a' => 'retest']), 'Under retest it has no verdict.');
        self::assertSame([], Cascade::standing('c', ['a'], $conditions, []), 'The entry is gone.');
        self::assertSame([], Cascade::standing('c', ['a'], self::of('c+b'), ['a' => 'blocked']), 'The condition between is gone.');
    }

    public function test_property_lifting_undoes_exactly_what_was_stopped(): void
    {
        mt_srand(4);
        for ($run = 0; $run < 100; $run++) {
            $made = [];
            for ($i = 1; $i < 12; $i++) {
                if (mt_rand(0, 2) > 0) {
                    $made[] = "{$i}" . (mt_rand(0, 3) > 0 ? '+' : '-') . mt_rand(0, $i - 1);
                }
            }
            $conditions = Conditions::of(
                array_map(static function (string $c): Condition {
                    [$needing, $sign, $needed] = preg_split('/(?=[+-])|(?<=[+-])/', $c) ?: [];

                    return new Condition("n{$needing}", "n{$needed}", '+' === $sign ? ConditionKind::OnlyIfPassed : ConditionKind::After);
                }, $made),
            );
            $all = array_fill_keys(array_map(static fn(int $i): string => "n{$i}", range(0, 11)), true);
            foreach (Cascade::reach('n0', $conditions, $all) as $stopped) {
                self::assertSame(['n0'], Cascade::standing($stopped, ['n0'], $conditions, ['n0' => 'fail']));
                self::assertSame([], Cascade::standing($stopped, ['n0'], $conditions, ['n0' => 'pass']));
            }
        }
    }

    public function test_the_mended_order_has_no_fault_and_moves_nothing_else(): void
    {
        $conditions = self::of('a+d', 'b-a');
        self::assertSame(['c', 'd', 'a', 'b', 'e'], $conditions->sortedByDependencies(['a', 'b', 'c', 'd', 'e']));
        mt_srand(6);
        for ($run = 0; $run < 100; $run++) {
            $ids = str_split('abcdefghij');
            $made = [];
            for ($i = 1; $i < 10; $i++) {
                if (0 === mt_rand(0, 1)) {
                    $made[] = $ids[$i] . '+' . $ids[mt_rand(0, $i - 1)];
                }
            }
            $conditions = self::of(...$made);
            shuffle($ids);
            $mended = $conditions->sortedByDependencies($ids);
            self::assertSame([], $conditions->outOfOrder($mended));
            self::assertEqualsCanonicalizing($ids, $mended);
            self::assertSame($mended, $conditions->sortedByDependencies($mended), 'What is in order stays as it is.');
        }
    }

    public function test_a_cycle_goes_only_where_it_may(): void
    {
        self::assertNotContains(CycleState::Released, CycleState::Draft->next(true));
        self::assertContains(CycleState::Released, CycleState::Draft->next(false));
        self::assertSame([CycleState::Released], CycleState::Closed->next(false));
        self::assertTrue(CycleState::Closed->needsReason(CycleState::Released));
        self::assertTrue(CycleState::Draft->needsReason(CycleState::Abandoned));
        self::assertFalse(CycleState::Released->needsReason(CycleState::Closed));
        self::assertFalse(CycleState::Closed->isOpen());
    }

    public function test_verdicts_of_unchanged_steps_are_carried_wherever_they_stand_now(): void
    {
        $step = static fn(string $text): Step => new Step($text, '', "See {$text}");
        self::assertSame(
            [1 => 0, 2 => 2],
            Carried::steps([$step('Open'), $step('Pay'), $step('Close')], [$step('Sign in first'), $step('Open'), $step('Close')]),
        );
        self::assertSame([], Carried::steps([$step('Open')], [new Step('Open', 'wide', 'See Open')]));
    }

    private static function of(string ...$conditions): Conditions
    {
        return Conditions::of(
            array_map(
                static fn(string $c): Condition => new Condition(
                    $c[0],
                    $c[2],
                    '+' === $c[1] ? ConditionKind::OnlyIfPassed : ConditionKind::After,
                ),
                array_values($conditions),
            ),
        );
    }
}
