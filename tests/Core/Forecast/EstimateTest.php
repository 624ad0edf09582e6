<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Forecast;

use LucidStep\Core\Forecast\Estimate;
use PHPUnit\Framework\TestCase;

final class EstimateTest extends TestCase
{
    public function test_by_what_is_known(): void
    {
        self::assertSame(120, Estimate::ofRound([120, 600, 60], 9999, 5), 'Three times: their median.');
        self::assertSame(
            90,
            Estimate::ofRound([60, 120, 90, 60, 3000, 90, 80, 100, 95, 85, 99999, 99999], null, 5),
            'Of the newest ten only.',
        );
        self::assertSame(200, Estimate::ofRound([100, 200], 300, 5), 'Two: the mean, the author among them.');
        self::assertSame(150, Estimate::ofRound([100, 200], null, 5));
        self::assertSame(300, Estimate::ofRound([], 300, 5));
        self::assertSame(125, Estimate::ofRound([], null, 5, 25.0));
        self::assertSame(300, Estimate::ofRound([], null, 5));
        self::assertSame(60, Estimate::ofRound([], null, 0));
    }

    public function test_an_entry_is_its_rounds_and_at_least_a_minute(): void
    {
        self::assertSame([60, 60, 600], [Estimate::ofEntry(10, 3), Estimate::ofEntry(60, 0), Estimate::ofEntry(200, 3)]);
    }

    public function test_property_the_median_stands_in_the_middle(): void
    {
        mt_srand(8);
        for ($i = 0; $i < 100; $i++) {
            $numbers = array_map(static fn(): int => mt_rand(0, 50), range(1, mt_rand(1, 12)));
            $median = Estimate::median($numbers);
            $below = \count(array_filter($numbers, static fn(int $n): bool => $n < $median));
            $above = \count(array_filter($numbers, static fn(int $n): bool => $n > $median));
            self::assertLessThanOrEqual(\count($numbers) / 2, max($below, $above));
        }
    }
}
