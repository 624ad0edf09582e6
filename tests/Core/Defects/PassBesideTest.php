<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Defects;

use LucidStep\Core\Defects\PassBeside;
use LucidStep\Core\Defects\WalkedRound;
use PHPUnit\Framework\TestCase;

final class PassBesideTest extends TestCase
{
    public function test_the_last_pass_before_on_the_same_configuration_comes_first_then_the_first_after_then_another_s(): void
    {
        $failed = self::round('failed', build: 5, finished: 50);
        $old = self::round('old', build: 3, finished: 90);
        $newer = self::round('newer', build: 4, finished: 10);
        $after = self::round('after', build: 6, finished: 60);
        $later = self::round('later', build: 7, finished: 70);
        $elsewhere = self::round('elsewhere', build: 5, finished: 49, configuration: 'phone');
        $chosen = static fn(WalkedRound ...$passed): ?string => PassBeside::of($failed, array_values($passed))?->round->attempt;
        self::assertSame('newer', $chosen($old, $newer, $after, $later, $elsewhere));
        self::assertSame('after', $chosen($later, $after, $elsewhere));
        self::assertSame('elsewhere', $chosen($elsewhere));
        self::assertNull($chosen());
        self::assertNull(PassBeside::of($failed, [$failed]));
        self::assertFalse(PassBeside::of($failed, [$elsewhere])->sameConfiguration ?? true);
    }

    public function test_the_same_values_come_before_what_is_nearer_and_other_ones_are_said_to_be_so(): void
    {
        $failed = self::round('failed', build: 5, row: [['age', '16']]);
        $same = self::round('same', build: 1, row: [['age', '16']]);
        $near = self::round('near', build: 4, row: [['age', '15']]);
        self::assertSame('same', PassBeside::of($failed, [$near, $same])?->round->attempt);
        self::assertTrue(PassBeside::of($failed, [$same])->sameRow ?? false);
        self::assertFalse(PassBeside::of($failed, [$near])->sameRow ?? true);
    }

    public function test_of_two_that_ended_at_once_the_higher_number_is_the_later(): void
    {
        $failed = self::round('failed', build: 5, finished: 50, number: 9);
        $passed = [self::round('one', build: 5, finished: 40, number: 1), self::round('two', build: 5, finished: 40, number: 2)];
        self::assertSame('two', PassBeside::of($failed, $passed)?->round->attempt);
        // Without a build it is before all that have one.
        self::assertTrue(PassBeside::of($failed, [self::round('none', build: null, finished: 99)])->isBefore ?? false);
    }

    public function test_what_is_chosen_does_not_hang_on_the_order_in_which_they_come(): void
    {
        mt_srand(6);
        $any = static fn(int $n): WalkedRound => self::round(
            "a{$n}",
            build: [null, 1, 2, 3][mt_rand(0, 3)],
            finished: mt_rand(1, 5),
            number: $n,
            configuration: ['phone', 'desk', null][mt_rand(0, 2)],
            row: [['x', (string) mt_rand(1, 2)]],
        );
        for ($turn = 0; $turn < 300; $turn++) {
            $passed = array_map($any, range(1, mt_rand(1, 9)));
            $failed = $any(50);
            $first = PassBeside::of($failed, $passed);
            shuffle($passed);
            self::assertEquals($first, PassBeside::of($failed, $passed));
            self::assertSame($first?->round->configuration === $failed->configuration, $first->sameConfiguration ?? null);
        }
    }

    /**
     * @param  list<array{string, string}>  $row
     */
    private static function round(
        string $attempt,
        ?int $build = 1,
        int $finished = 1,
        int $number = 1,
        ?string $configuration = 'desk',
        array $row = [],
    ): WalkedRound {
        return new WalkedRound($attempt, 1, 1, $number, $build, $finished, $configuration, $row);
    }
}
