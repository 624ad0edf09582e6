<?php

declare(strict_types=1);

namespace LucidStep\Core\Planning;

/**
 * What axes give (rules of the job, 4): all combinations of their values, or a small set in which every pair meets,
 * without forbidden pairs. Deterministic, and the order of the axes does not change the result.
 */
final class Combinations
{
    /** More configurations than this are nobody's plan. */
    public const MOST = 5000;

    /** More pairs of values than this are not looked through while somebody waits: they take more than some seconds. */
    public const MOST_PAIRS = 5000;

    /** Steps of the search for allowed combinations. Only forbidden pairs that leave hardly anything need so many. */
    private const MOST_STEPS = 1_000_000;

    private int $steps = 0;

    /** @var list<Axis> the longest first, then by name */
    private array $axes = [];

    /** @var list<string> names in the order they were given */
    private array $order;

    /** @var array<int, array<int, array<int, array<int, true>>>> forbidden[axis][value][axis][value], both ways */
    private array $forbidden = [];

    /** @var list<int> numbers of values by axis */
    private array $sizes;

    /**
     * @param  list<Axis>  $axes
     * @param  list<ValuePair>  $forbidden
     *
     * @throws BadAxes when there is no axis, two have one name, a forbidden pair is of unknown values, or there are more pairs of
     *     values than {@see MOST_PAIRS}
     */
    public function __construct(array $axes, array $forbidden = [])
    {
        if ([] === $axes) {
            throw BadAxes::none();
        }
        $this->order = array_map(static fn(Axis $a): string => $a->name, $axes);
        usort($axes, static fn(Axis $a, Axis $b): int => [-\count($a->values), $a->name] <=> [-\count($b->values), $b->name]);
        $at = [];
        foreach ($axes as $i => $axis) {
            if (isset($at[$axis->name])) {
                throw BadAxes::sameName($axis->name);
            }
            $at[$axis->name] = $i;
        }
        $this->axes = $axes;
        $this->sizes = array_map(static fn(Axis $a): int => \count($a->values), $axes);
        $values = array_sum($this->sizes);
        $pairs = intdiv($values * $values - array_sum(array_map(static fn(int $n): int => $n * $n, $this->sizes)), 2);
        if ($pairs > self::MOST_PAIRS) {
            throw BadAxes::tooManyPairs($pairs, self::MOST_PAIRS);
        }
        foreach ($forbidden as $pair) {
            [$a, $va] = $this->find($at, $pair->axis, $pair->value);
            [$b, $vb] = $this->find($at, $pair->otherAxis, $pair->otherValue);
            if ($a !== $b) {
                $this->forbidden[$a][$va][$b][$vb] = $this->forbidden[$b][$vb][$a][$va] = true;
            }
        }
    }

    /**
     * Every combination without a forbidden pair, in the order of the axes and their values.
     *
     *
     * @throws BadAxes when there are more than {@see MOST}
     * @return list<array<string, string>> value by axis
     */
    public function all(): array
    {
        $found = [];
        foreach ($this->each([], $this->given()) as $row) {
            $found[] = $row;
            if (\count($found) > self::MOST) {
                throw BadAxes::tooMany(self::MOST);
            }
        }

        return array_map($this->named(...), $found);
    }

    /**
     * How many combinations there are, counted up to $most and one more.
     */
    public function count(int $most = self::MOST): int
    {
        $n = 0;
        foreach ($this->each([], range(0, \count($this->axes) - 1)) as $row) {
            if (++$n > $most) {
                break;
            }
        }

        return $n;
    }

    /**
     * Every possible pair at least once, and no configuration that could be left out. Greedy (best of three), then rows
     * are taken out one by one and what they covered is mended by tabu exchange.
     *
     * Source: the construction follows published work on covering arrays of strength two (one-row-at-a-time greedy;
     * tabu search over single-cell changes that cover a chosen uncovered pair, after K. J. Nurmela, 2004).
     */
    public function pairs(): Pairs
    {
        [$needed, $impossible] = $this->possible();
        if (1 === \count($this->axes)) {
            return new Pairs(array_map(fn(string $v): array => [$this->axes[0]->name => $v], $this->axes[0]->values), []);
        }
        $search = new PairSearch($this->sizes, $needed, $this->forbidden, $this->extend(...));
        $rows = $search->rows();
        sort($rows);

        return new Pairs(array_map($this->named(...), $rows), $impossible);
    }

    /**
     * The possible pairs that do not meet in a set of configurations.
     *
     * @param  list<array<string, string>>  $configurations value by axis; axes may be missing
     *
     * @return list<ValuePair>
     */
    public function untested(array $configurations): array
    {
        [$needed] = $this->possible();
        foreach ($configurations as $configuration) {
            foreach ($this->axes as $a => $axis) {
                foreach (\array_slice($this->axes, $a + 1, null, true) as $b => $other) {
                    $va = array_search($configuration[$axis->name] ?? null, $axis->values, true);
                    $vb = array_search($configuration[$other->name] ?? null, $other->values, true);
                    if (false !== $va && false !== $vb) {
                        unset($needed[$a][$b][$va][$vb]);
                    }
                }
            }
        }

        return $this->listed($needed);
    }

    /**
     * @return array{array<int, array<int, array<int, array<int, true>>>>, list<ValuePair>} pairs[axis][later
     *     axis][value][value] that some combination contains, and those that none does
     */
    private function possible(): array
    {
        $possible = $none = [];
        $last = \count($this->axes) - 1;
        for ($a = 0; $a < $last; $a++) {
            for ($b = $a + 1; $b <= $last; $b++) {
                for ($va = 0; $va < $this->sizes[$a]; $va++) {
                    for ($vb = 0; $vb < $this->sizes[$b]; $vb++) {
                        if (null === $this->extend([$a => $va, $b => $vb])) {
                            $none[$a][$b][$va][$vb] = true;
                        } else {
                            $possible[$a][$b][$va][$vb] = true;
                        }
                    }
                }
            }
        }

        return [$possible, $this->listed($none)];
    }

    /**
     * Some allowed combination that contains the given values; null when there is none.
     *
     * @param  array<int, int>  $fixed value by axis
     *
     * @return ?array<int, int>
     */
    private function extend(array $fixed): ?array
    {
        if ([] === $this->forbidden) {
            return $fixed + array_fill(0, \count($this->axes), 0);
        }
        foreach ($fixed as $a => $va) {
            foreach ($fixed as $b => $vb) {
                if (isset($this->forbidden[$a][$va][$b][$vb])) {
                    return null;
                }
            }
        }
        foreach ($this->each($fixed, array_values(array_diff(range(0, \count($this->axes) - 1), array_keys($fixed)))) as $row) {
            return $row;
        }

        return null;
    }

    /**
     * All allowed ways to go on from some values, depth first.
     *
     * @param  array<int, int>  $row
     * @param  list<int>  $open the axes still to be set, in order
     *
     * @return \Generator<int, array<int, int>>
     */
    private function each(array $row, array $open): \Generator
    {
        if ([] === $open) {
            yield $row;

            return;
        }
        $axis = array_shift($open);
        for ($value = 0; $value < $this->sizes[$axis]; $value++) {
            if (++$this->steps > self::MOST_STEPS) {
                throw BadAxes::tooEntangled();
            }
            foreach ($row as $b => $vb) {
                if (isset($this->forbidden[$axis][$value][$b][$vb])) {
                    continue 2;
                }
            }
            yield from $this->each($row + [$axis => $value], $open);
        }
    }

    /**
     * @return list<int> the axes in the order they were given
     */
    private function given(): array
    {
        $names = array_map(static fn(Axis $a): string => $a->name, $this->axes);

        return array_map(static fn(string $n): int => (int) array_search($n, $names, true), $this->order);
    }

    /**
     * @param  array<int, int>  $row
     *
     * @return array<string, string>
     */
    private function named(array $row): array
    {
        $values = [];
        foreach ($this->given() as $axis) {
            $values[$this->axes[$axis]->name] = $this->axes[$axis]->values[$row[$axis]];
        }

        return $values;
    }

    /**
     * @param  array<int, array<int, array<int, array<int, true>>>>  $pairs
     *
     * @return list<ValuePair>
     */
    private function listed(array $pairs): array
    {
        $list = [];
        foreach ($pairs as $a => $others) {
            foreach ($others as $b => $values) {
                foreach ($values as $va => $with) {
                    foreach (array_keys($with) as $vb) {
                        $list[] = new ValuePair(
                            $this->axes[$a]->name,
                            $this->axes[$a]->values[$va],
                            $this->axes[$b]->name,
                            $this->axes[$b]->values[$vb],
                        );
                    }
                }
            }
        }

        return $list;
    }

    /**
     * @param  array<string, int>  $at
     *
     * @return array{int, int}
     */
    private function find(array $at, string $axis, string $value): array
    {
        $i = $at[$axis] ?? throw BadAxes::unknown($axis, $value);
        $v = array_search($value, $this->axes[$i]->values, true);

        return [$i, \is_int($v) ? $v : throw BadAxes::unknown($axis, $value)];
    }
}
