<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Defects;

use LucidStep\Core\Defects\DefectLikeness;
use LucidStep\Core\Defects\Draft;
use PHPUnit\Framework\TestCase;

final class DefectLikenessTest extends TestCase
{
    public function test_property_it_is_the_same_both_ways_between_0_and_1_and_never_likens_nothing_to_nothing(): void
    {
        mt_srand(12);
        $words = ['total', 'band', 'bike', 'fare', 'fares', 'wrong', 'the', 'counted', 'counting', 'Größe', ''];
        $text = static fn(): string => implode(' ', array_map(static fn(): string => $words[mt_rand(0, 10)], range(1, mt_rand(1, 6))));
        $pick = static fn(string ...$of): ?string => [null, ...$of][mt_rand(0, count($of))];
        for ($turn = 0; $turn < 2000; $turn++) {
            $any = static fn(): DefectLikeness => new DefectLikeness(
                $text(),
                $text(),
                '',
                $pick('c1', 'c2'),
                $pick('Go', 'Pay'),
                $pick('x'),
            );
            [$one, $other] = [$any(), $any()];
            $likeness = $one->with($other);
            self::assertEqualsWithDelta($likeness, $other->with($one), 1e-12);
            self::assertGreaterThanOrEqual(0.0, $likeness);
            self::assertLessThanOrEqual(1.0 + 1e-12, $likeness);
            self::assertLessThanOrEqual($one->with($one) + 1e-12, $one->with(new DefectLikeness('', '')));
            self::assertSame([], array_diff($one->shared($other), $one->words()));
        }
        self::assertSame(0.0, (new DefectLikeness('', ''))->with(new DefectLikeness('the', '')));
    }

    public function test_each_part_counts_for_what_the_rule_says(): void
    {
        $full = new DefectLikeness('Total is wrong', 'It was 9.24', '', 'c', 'Pay', 'Fares');
        self::assertEqualsWithDelta(1.0, $full->with($full), 1e-12);
        $of = static fn(DefectLikeness $d): float => $full->with($d);
        self::assertEqualsWithDelta(0.45, $of(new DefectLikeness('total wrong', '')), 1e-12);
        self::assertEqualsWithDelta(0.25, $of(new DefectLikeness('', '9 24')), 1e-12);
        self::assertEqualsWithDelta(0.1, $of(new DefectLikeness('', '', '', 'c')), 1e-12);
        self::assertEqualsWithDelta(0.25, $of(new DefectLikeness('', '', '', 'c', 'Pay')), 1e-12);
        self::assertEqualsWithDelta(0.0, $of(new DefectLikeness('', '', '', 'other', 'Pay')), 1e-12, 'a step is one of its case');
        self::assertEqualsWithDelta(0.05, $of(new DefectLikeness('', '', '', null, null, 'Fares')), 1e-12);
    }

    public function test_the_title_of_the_case_says_nothing_of_what_happened_however_it_was_cut(): void
    {
        $case = 'A passenger of 15 travels at half fare, one of 16 does not, and one of 65 pays a quarter less';
        $one = new DefectLikeness(Draft::title($case, 'Total stays empty'), '', $case);
        $other = new DefectLikeness(Draft::title($case, 'The bike vanishes'), '', $case);
        self::assertSame(0.0, $one->with($other));
        self::assertSame(['total', 'stay', 'empty'], $one->words());
        self::assertSame(['one', 'two', 'three'], (new DefectLikeness('One two – three', '', 'Something else'))->words());
    }
}
