<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Verdict;

use LucidStep\Core\Verdict\RoundFacts;
use LucidStep\Core\Verdict\Rounds;
use LucidStep\Core\Verdict\Verdict;
use PHPUnit\Framework\TestCase;

final class RoundsTest extends TestCase
{
    public function test_a_round_walked_again_stands_for_the_one_before(): void
    {
        $fail = new RoundFacts(1, [Verdict::Pass, Verdict::Fail]);
        $pass = new RoundFacts(2, [Verdict::Pass]);
        $again = new RoundFacts(3, [Verdict::Pass, Verdict::Pass], false, 1);
        self::assertSame(Verdict::Fail, Rounds::rollUp([$fail, $pass]));
        self::assertSame(Verdict::Pass, Rounds::rollUp([$fail, $pass, $again]));
        self::assertSame([2, 3], array_map(static fn(RoundFacts $r): int => $r->position, Rounds::counted([$again, $pass, $fail])));
        $twice = new RoundFacts(4, [Verdict::NotRun, Verdict::NotRun], false, 3);
        self::assertSame(Verdict::InProgress, Rounds::rollUp([$fail, $pass, $again, $twice]));
    }

    public function test_a_round_left_out_is_not_applicable(): void
    {
        $out = new RoundFacts(2, [Verdict::NotRun, Verdict::NotRun], true);
        self::assertSame(Verdict::Pass, Rounds::rollUp([new RoundFacts(1, [Verdict::Pass]), $out]));
        self::assertSame(Verdict::NotApplicable, Rounds::rollUp([$out]));
        self::assertSame([[Verdict::Pass], [Verdict::NotApplicable]], Rounds::verdicts([new RoundFacts(1, [Verdict::Pass]), $out]));
    }

    public function test_rolling_up_rounds_is_rolling_up_the_steps_that_count(): void
    {
        mt_srand(11);
        $all = [Verdict::Pass, Verdict::Fail, Verdict::Blocked, Verdict::NotApplicable, Verdict::NotRun];
        for ($n = 0; $n < 400; $n++) {
            $rounds = [];
            for ($i = 1; $i <= mt_rand(1, 6); $i++) {
                $steps = array_map(static fn(): Verdict => $all[mt_rand(0, 4)], range(1, mt_rand(1, 4)));
                $free = array_diff(range(0, $i - 1), [0], array_map(static fn(RoundFacts $r): int => $r->repeats ?? 0, $rounds));
                $rounds[] = new RoundFacts(
                    $i,
                    $steps,
                    0 === mt_rand(0, 5),
                    [] === $free || mt_rand(0, 2) > 0 ? null : $free[array_rand($free)],
                );
            }
            $mixed = $rounds;
            shuffle($mixed);
            self::assertSame(Verdict::rollUp(array_merge(...Rounds::verdicts($rounds))), Rounds::rollUp($mixed));
        }
    }
}
