<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Verdict;

use LucidStep\Core\Verdict\Finish;
use LucidStep\Core\Verdict\Verdict;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class RollUpTest extends TestCase
{
    /**
     * @return iterable<array{string, string}>
     */
    public static function examples(): iterable
    {
        yield ['pass pass not_applicable', 'pass'];
        yield ['pass fail blocked not_run', 'fail'];
        yield ['pass blocked not_run', 'blocked'];
        yield ['pass not_run', 'in_progress'];
        yield ['pass in_progress', 'in_progress'];
        yield ['not_applicable not_applicable', 'not_applicable'];
        yield ['not_run not_run', 'not_run'];
        yield ['in_progress', 'in_progress'];
        yield ['', 'not_run'];
    }

    #[DataProvider('examples')]
    public function test_the_first_rule_that_fits_decides(string $steps, string $expected): void
    {
        self::assertSame($expected, Verdict::rollUp(self::verdicts($steps))->value);
    }

    public function test_two_rounds_of_which_one_is_unfinished_are_in_progress(): void
    {
        self::assertSame(Verdict::InProgress, Finish::rollUp([self::verdicts('pass'), self::verdicts('pass not_run')]));
    }

    /**
     * Every list of up to five step verdicts, cut into rounds at every place.
     */
    public function test_rolling_up_rounds_equals_rolling_up_all_their_steps(): void
    {
        $given = [Verdict::Pass, Verdict::Fail, Verdict::Blocked, Verdict::NotApplicable, Verdict::NotRun];
        $lists = [[]];
        for ($length = 1; $length <= 5; $length++) {
            $longer = [];
            foreach ($lists as $list) {
                foreach ($given as $verdict) {
                    $longer[] = [...$list, $verdict];
                }
            }
            $lists = $longer;
            foreach ($lists as $list) {
                for ($cut = 1; $cut < $length; $cut++) {
                    $rounds = [array_slice($list, 0, $cut), array_slice($list, $cut)];
                    if (Verdict::rollUp($list) !== Finish::rollUp($rounds)) {
                        self::fail(
                            'Rounds and steps differ for ' .
                                implode(' ', array_map(static fn(Verdict $v): string => $v->value, $list)) .
                                " cut at {$cut}",
                        );
                    }
                }
            }
        }
        self::assertCount(5 ** 5, $lists);
    }

    public function test_the_order_of_steps_does_not_matter(): void
    {
        foreach (self::examples() as [$steps, $expected]) {
            self::assertSame($expected, Verdict::rollUp(array_reverse(self::verdicts($steps)))->value);
        }
    }

    /**
     * @return list<Verdict>
     */
    private static function verdicts(string $words): array
    {
        return $words === '' ? [] : array_map(Verdict::from(...), explode(' ', $words));
    }
}
