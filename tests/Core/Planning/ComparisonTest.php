<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Planning;

use LucidStep\Core\Planning\Comparison;
use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;

final class ComparisonTest extends TestCase
{
    private const SHOWN = [null, 'pass', 'fail', 'blocked', 'not_applicable', 'not_run', 'in_progress', 'retest'];

    #[TestWith(['fail', 'blocked', 'no_longer_failing'])]
    #[TestWith([null, 'fail', 'new'])]
    #[TestWith(['not_run', 'fail', 'new'])]
    #[TestWith(['blocked', 'pass', 'changed'])]
    #[TestWith(['pass', 'fail', 'newly_failing'])]
    #[TestWith(['blocked', 'fail', 'newly_failing'])]
    #[TestWith(['fail', 'fail', 'still_failing'])]
    #[TestWith(['pass', 'not_run', 'gone'])]
    #[TestWith(['pass', 'pass', 'same'])]
    #[TestWith(['fail', 'retest', 'changed'])]
    public function test_each_pair_is_of_one_class(?string $before, ?string $after, string $is): void
    {
        self::assertSame($is, Comparison::change($before, $after));
    }

    public function test_property_swapping_the_two_exchanges_the_classes(): void
    {
        $swapped = [
            'new' => 'gone',
            'gone' => 'new',
            'newly_failing' => 'no_longer_failing',
            'no_longer_failing' => 'newly_failing',
            'still_failing' => 'still_failing',
            'changed' => 'changed',
            'same' => 'same',
        ];
        self::assertEqualsCanonicalizing(Comparison::CLASSES, array_keys($swapped));
        foreach (self::SHOWN as $a) {
            foreach (self::SHOWN as $b) {
                if (null !== $a || null !== $b) {
                    self::assertSame($swapped[Comparison::change($a, $b)], Comparison::change($b, $a), "{$a} {$b}");
                }
            }
        }
    }

    public function test_the_same_entries_are_matched_in_order_and_none_is_lost(): void
    {
        $entry = static fn(string $key, string $shows): array => ['key' => $key, 'display_state' => $shows];
        $pairs = Comparison::of(
            [$entry('a', 'pass'), $entry('b', 'fail'), $entry('c', 'pass'), $entry('c', 'fail'), $entry('gone', 'pass')],
            [$entry('b', 'pass'), $entry('a', 'fail'), $entry('c', 'pass'), $entry('c', 'not_run'), $entry('new', 'pass')],
        );
        self::assertSame(['no_longer_failing', 'newly_failing', 'same', 'gone', 'new', 'gone'], array_column($pairs, 'is'));
        self::assertSame([1, 0, 2, 3, null, 4], array_column($pairs, 'before'));
        self::assertSame([0, 1, 2, 3, 4, null], array_column($pairs, 'after'));
    }

    public function test_earlier_goes_by_the_order_of_builds_then_by_date_then_by_number(): void
    {
        $of = static fn(?int $build, string $date, int $number): array => ['build' => $build, 'date' => $date, 'number' => $number];
        self::assertTrue(Comparison::isEarlier($of(1, '2026-12-09', 9), $of(2, '2026-12-01', 1)));
        self::assertTrue(Comparison::isEarlier($of(2, '2026-12-01', 9), $of(2, '2026-12-02', 1)));
        self::assertTrue(Comparison::isEarlier($of(null, '2026-12-01', 9), $of(2, '2026-12-02', 1)));
        self::assertTrue(Comparison::isEarlier($of(2, '2026-12-01', 1), $of(2, '2026-12-01', 2)));
        self::assertFalse(Comparison::isEarlier($of(2, '2026-12-01', 1), $of(2, '2026-12-01', 1)));
    }
}
