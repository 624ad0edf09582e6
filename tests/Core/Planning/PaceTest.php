<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Planning;

use LucidStep\Core\Planning\Calendar;
use LucidStep\Core\Planning\Pace;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/**
 * How quickly a cycle is walked against how quickly it would have to be.
 */
final class PaceTest extends TestCase
{
    /**
     * @param  array{float, float, int, string}  $expected walked and needed a day, days left, state
     */
    #[DataProvider('cycles')]
    public function test_it_counts_working_days(int $left, int $lately, string $from, string $to, string $today, array $expected): void
    {
        $pace = Pace::of($left, $lately, $from, $to, $today, new Calendar([1, 2, 3, 4, 5], ['2026-12-25']));
        self::assertSame($expected, [$pace->walked, $pace->needed(), $pace->daysLeft, $pace->state()]);
    }

    /**
     * @return iterable<string, array{int, int, string, string, string, array{float, float, int, string}}>
     */
    public static function cycles(): iterable
    {
        // 2026-12-02 is a Wednesday.
        yield 'in time: five days back, three to go' => [9, 20, '2026-11-01', '2026-12-04', '2026-12-02', [4.0, 3.0, 3, 'in_time']];
        yield 'behind' => [15, 20, '2026-11-01', '2026-12-04', '2026-12-02', [4.0, 5.0, 3, 'behind']];
        yield 'begun yesterday: two days count' => [9, 6, '2026-12-01', '2026-12-04', '2026-12-02', [3.0, 3.0, 3, 'in_time']];
        yield 'begins today, on a Saturday' => [9, 3, '2026-12-05', '2026-12-08', '2026-12-05', [3.0, 4.5, 2, 'behind']];
        yield 'a holiday is not worked' => [2, 5, '2026-12-01', '2026-12-28', '2026-12-25', [1.3, 2.0, 1, 'behind']];
        yield 'over, and not done' => [4, 5, '2026-11-01', '2026-12-01', '2026-12-02', [1.0, 4.0, 0, 'late']];
        yield 'done, however late' => [0, 5, '2026-11-01', '2026-12-01', '2026-12-02', [1.0, 0.0, 0, 'done']];
        yield 'nobody walked' => [4, 0, '2026-11-01', '2026-12-04', '2026-12-02', [0.0, 1.3, 3, 'behind']];
    }
}
