<?php

declare(strict_types=1);

namespace LucidStep\Tests\Core\Planning;

use LucidStep\Core\Planning\Axis;
use LucidStep\Core\Planning\BadAxes;
use LucidStep\Core\Planning\Combinations;
use LucidStep\Core\Planning\ValuePair;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class CombinationsTest extends TestCase
{
    /**
     * @param  list<int>  $sizes
     */
    #[DataProvider('shapes')]
    public function test_every_pair_meets_within_one_and_a_half_of_the_two_longest_axes(array $sizes, int $most): void
    {
        $combinations = new Combinations(self::axes($sizes));
        $found = $combinations->pairs()->configurations;
        self::assertSame([], $combinations->untested($found));
        $pairs = 0;
        foreach ($sizes as $i => $n) {
            $pairs += $n * array_sum(\array_slice($sizes, $i + 1));
        }
        self::assertCount($pairs, self::met($found));
        self::assertLessThanOrEqual($most, \count($found));
        self::assertNoneCanGo($combinations, $found);
    }

    /**
     * @return iterable<string, array{list<int>, int}>
     */
    public static function shapes(): iterable
    {
        // The figures of the rules; elsewhere the bound.
        foreach ([[2, 2, 2, 2, 2, 2], [3, 3, 3, 3, 3, 3], [4, 4, 4, 4, 4, 4], [5, 5, 5, 5, 5, 5]] as $i => $sizes) {
            yield implode('×', $sizes) => [$sizes, [6, 12, 19, 25][$i]];
        }
        mt_srand(7);
        for ($i = 0; $i < 25; $i++) {
            $sizes = array_map(static fn(): int => mt_rand(1, 5), range(1, mt_rand(2, 6)));
            $sorted = $sizes;
            rsort($sorted);
            yield "{$i}: " . implode('×', $sizes) => [$sizes, (int) (1.5 * $sorted[0] * $sorted[1])];
        }
    }

    public function test_forbidden_pairs_are_nowhere_and_all_that_is_possible_meets(): void
    {
        mt_srand(11);
        for ($run = 0; $run < 60; $run++) {
            $axes = self::axes(array_map(static fn(): int => mt_rand(1, 4), range(1, mt_rand(2, 5))));
            $forbidden = [];
            for ($i = mt_rand(0, 6); $i > 0; $i--) {
                [$a, $b] = (array) array_rand($axes, 2);
                $forbidden[] = new ValuePair(
                    $axes[$a]->name,
                    $axes[$a]->values[array_rand($axes[$a]->values)],
                    $axes[$b]->name,
                    $axes[$b]->values[array_rand($axes[$b]->values)],
                );
            }
            $combinations = new Combinations($axes, $forbidden);
            $all = $combinations->all();
            // By hand: everything, without what holds a forbidden pair.
            $byHand = array_values(
                array_filter((new Combinations($axes))->all(), static function (array $row) use ($forbidden): bool {
                    foreach ($forbidden as $pair) {
                        if ($row[$pair->axis] === $pair->value && $row[$pair->otherAxis] === $pair->otherValue) {
                            return false;
                        }
                    }

                    return true;
                }),
            );
            self::assertSame($byHand, $all);
            self::assertSame(\count($all), $combinations->count());
            $pairs = $combinations->pairs();
            foreach ($pairs->configurations as $row) {
                self::assertContains($row, $all);
            }
            self::assertSame(self::met($all), self::met($pairs->configurations));
            self::assertNoneCanGo($combinations, $pairs->configurations);
            $possible = self::met($all);
            $none = self::met((new Combinations($axes))->all());
            self::assertCount(\count($none) - \count($possible), $pairs->impossible);
            foreach ($pairs->impossible as $pair) {
                self::assertNotContains(self::pair($pair->axis, $pair->value, $pair->otherAxis, $pair->otherValue), $possible);
            }
        }
    }

    public function test_the_order_of_the_axes_changes_nothing(): void
    {
        $axes = self::axes([3, 2, 4, 2]);
        $one = (new Combinations($axes))->pairs()->configurations;
        $other = (new Combinations(array_reverse($axes)))->pairs()->configurations;
        self::assertEqualsCanonicalizing(array_map(self::sorted(...), $one), array_map(self::sorted(...), $other));
        self::assertSame(
            array_map(static fn(Axis $a): string => $a->name, $axes),
            array_keys($one[0]),
            'Each configuration in the order of the axes.',
        );
    }

    public function test_what_a_hand_made_set_leaves_untested_is_told(): void
    {
        $axes = [new Axis('Device', ['Phone', 'Tablet']), new Axis('Browser', ['Kestrel', 'Heron'])];
        $combinations = new Combinations($axes, [new ValuePair('Device', 'Tablet', 'Browser', 'Kestrel')]);
        $left = $combinations->untested([['Device' => 'Phone', 'Browser' => 'Heron']]);
        $names = array_map(static fn(ValuePair $p): string => $p->label(), $left);
        sort($names);
        self::assertCount(2, $left);
        self::assertStringContainsString('Kestrel', $names[0] . $names[1]);
        self::assertCount(3, $combinations->untested([]));
        self::assertCount(
            3,
            $combinations->untested([['Device' => 'Phone'], ['Browser' => 'Heron']]),
            'Half a configuration tests no pair.',
        );
    }

    public function test_one_axis_gives_its_values(): void
    {
        self::assertSame([['A' => 'x'], ['A' => 'y']], (new Combinations([new Axis('A', ['x', 'y'])]))->pairs()->configurations);
    }

    public function test_bad_axes_are_refused_by_name(): void
    {
        foreach (
            [
                'has no value' => static fn() => new Axis('Device', []),
                'a value twice' => static fn() => new Axis('Device', ['x', 'x']),
                'no axis' => static fn() => new Combinations([]),
                'Two axes' => static fn() => new Combinations([new Axis('A', ['x']), new Axis('A', ['y'])]),
                'no value “z” on the axis “A”' => static fn() => new Combinations(
                    [new Axis('A', ['x']), new Axis('B', ['y'])],
                    [new ValuePair('A', 'z', 'B', 'y')],
                ),
                'more than 5000' => static fn() => (new Combinations(self::axes([9, 9, 9, 9])))->all(),
            ]
            as $why => $do
        ) {
            try {
                $do();
                self::fail("Taken: {$why}");
            } catch (BadAxes $e) {
                self::assertStringContainsString($why, $e->getMessage());
            }
        }
        self::assertSame(101, (new Combinations(self::axes([9, 9, 9, 9])))->count(100));
    }

    /**
     * What would take long is refused before it is begun, and a search that finds hardly anything ends.
     */
    public function test_the_work_is_bounded_before_it_begins(): void
    {
        self::assertCount(50, (new Combinations(self::axes([50, 1])))->pairs()->configurations);
        new Combinations(self::axes([100, 50]));
        try {
            new Combinations(self::axes([100, 50, 1]));
            self::fail('Taken.');
        } catch (BadAxes $e) {
            self::assertStringContainsString('5,150 pairs of values; at most 5,000', $e->getMessage());
        }
        // Of every two axes but the first only unlike values meet: three values on eleven axes cannot be spread so.
        $forbidden = [];
        for ($a = 1; $a < 12; $a++) {
            for ($b = $a + 1; $b < 12; $b++) {
                for ($v = 1; $v < 9; $v++) {
                    $forbidden[] = new ValuePair("Axis {$a}", "v{$v}", "Axis {$b}", "v{$v}");
                }
            }
        }
        $this->expectException(BadAxes::class);
        $this->expectExceptionMessage('cannot be found');
        (new Combinations(self::axes(array_fill(0, 12, 8)), $forbidden))->count();
    }

    /**
     * @param  list<int>  $sizes
     *
     * @return list<Axis>
     */
    private static function axes(array $sizes): array
    {
        return array_map(
            static fn(int $i, int $n): Axis => new Axis("Axis {$i}", array_map(static fn(int $v): string => "v{$v}", range(1, $n))),
            array_keys($sizes),
            $sizes,
        );
    }

    /**
     * @param  list<array<string, string>>  $rows
     *
     * @return list<string> the pairs that meet in them
     */
    private static function met(array $rows): array
    {
        $met = [];
        foreach ($rows as $row) {
            foreach ($row as $a => $va) {
                foreach ($row as $b => $vb) {
                    if ($a !== $b) {
                        $met[self::pair($a, $va, $b, $vb)] = true;
                    }
                }
            }
        }
        $names = array_keys($met);
        sort($names);

        return $names;
    }

    private static function pair(string $a, string $va, string $b, string $vb): string
    {
        $both = ["{$a}={$va}", "{$b}={$vb}"];
        sort($both);

        return implode(' ', $both);
    }

    /**
     * @param  array<string, string>  $row
     *
     * @return array<string, string>
     */
    private static function sorted(array $row): array
    {
        ksort($row);

        return $row;
    }

    /**
     * @param  list<array<string, string>>  $rows
     */
    private static function assertNoneCanGo(Combinations $combinations, array $rows): void
    {
        if ([] === $rows || 1 === \count($rows[0])) {
            return;
        }
        foreach (array_keys($rows) as $i) {
            $without = $rows;
            unset($without[$i]);
            self::assertNotSame([], $combinations->untested(array_values($without)), 'A configuration that could be left out.');
        }
    }
}
