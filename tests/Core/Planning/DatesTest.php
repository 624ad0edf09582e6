<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Planning;

use LucidStep\Core\Planning\Calendar;
use LucidStep\Core\Planning\CycleDates;
use LucidStep\Core\Planning\Shift;
use PHPUnit\Framework\TestCase;

final class DatesTest extends TestCase
{
    public function test_working_days_leave_out_weekends_holidays_and_days_off(): void
    {
        $calendar = new Calendar([1, 2, 3, 4, 5], ['2026-12-25']);
        self::assertSame(4, $calendar->days('2026-12-21', '2026-12-27'));
        self::assertSame(3, $calendar->days('2026-12-21', '2026-12-27', ['2026-12-22']));
        self::assertSame(0, $calendar->days('2026-12-25', '2026-12-27'));
        self::assertSame(0, $calendar->days('2026-12-28', '2026-12-27'));
        self::assertSame(['2026-12-28', '2026-12-24'], [$calendar->onOrAfter('2026-12-25'), $calendar->onOrBefore('2026-12-25')]);
        $this->expectException(\InvalidArgumentException::class);
        new Calendar([]);
    }

    public function test_a_moment_moves_by_days_at_the_same_local_time(): void
    {
        // The clocks go back in Dublin on 25 October 2026.
        $shift = new Shift(7, new Calendar(), 'Europe/Dublin');
        self::assertSame('2026-10-29T09:00:00+00:00', $shift->moment(new \DateTimeImmutable('2026-10-22T08:00:00Z'))->format('c'));
        self::assertSame(['2026-10-29', '2026-11-01'], $shift->dates('2026-10-22', '2026-10-25'));
    }

    public function test_on_request_starts_and_ends_avoid_days_off(): void
    {
        $shift = new Shift(1, new Calendar(), 'UTC', true);
        self::assertSame(['2026-11-09', '2026-11-13'], $shift->dates('2026-11-06', '2026-11-12'), 'Saturday to Monday.');
        self::assertSame(
            ['2026-11-09', '2026-11-09'],
            $shift->dates('2026-11-06', '2026-11-07'),
            'A weekend falls on the next working day.',
        );
    }

    public function test_property_a_shift_keeps_distances_and_never_turns_dates_around(): void
    {
        mt_srand(2);
        for ($i = 0; $i < 300; $i++) {
            $start = Calendar::plus('2026-01-01', mt_rand(0, 700));
            $end = Calendar::plus($start, mt_rand(0, 30));
            $by = mt_rand(-400, 400);
            [$a, $b] = (new Shift($by, new Calendar(), 'UTC'))->dates($start, $end);
            self::assertSame(Calendar::between($start, $end), Calendar::between($a, $b));
            self::assertSame($by, Calendar::between($start, $a));
            $calendar = new Calendar([1, 2, 3, 4], ['2026-06-01']);
            [$a, $b] = (new Shift($by, $calendar, 'UTC', true))->dates($start, $end);
            self::assertLessThanOrEqual($b, $a);
            self::assertTrue($calendar->works($a) && $calendar->works($b));
        }
    }

    public function test_dates_that_do_not_stand_are_told_by_field_and_name(): void
    {
        self::assertSame([], CycleDates::faults('Smoke', '2026-11-01', '2026-11-01', '2026-11-01', 'Opening'));
        self::assertStringContainsString(
            '“Smoke” would end on 2026-11-03, after “Opening”',
            CycleDates::faults('Smoke', '2026-11-01', '2026-11-03', '2026-11-02', 'Opening')['ends_on'],
        );
        self::assertStringContainsString('before it starts', CycleDates::faults('Smoke', '2026-11-05', '2026-11-03')['ends_on']);
        self::assertSame(
            ['ends_on', 'starts_on'],
            array_keys(CycleDates::faults('Smoke', '2026-11-05', '2026-11-06', '2026-11-02', 'Opening')),
        );
    }
}
