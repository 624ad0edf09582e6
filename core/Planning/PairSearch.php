<?php

declare(strict_types=1);

namespace LucidStep\Core\Planning;

/**
 * Looks for a small set of rows in which all needed pairs meet. Values and axes are numbers here.
 *
 * @internal the work behind {@see Combinations::pairs()}
 */
final class PairSearch
{
    /** Exchanges tried before a row is given up as needed. */
    private const EXCHANGES = 6000;

    /** How long an exchanged cell is left alone. */
    private const TABU = 4;

    private \Random\Randomizer $random;

    private int $axes;

    /** @var list<array<int, int>> */
    private array $rows = [];

    /** @var array<int, array<int, array<int, array<int, int>>>> how many rows hold each pair */
    private array $cover = [];

    /** @var array<int, array{int, int, int, int}> the pairs that no row holds, by number */
    private array $open = [];

    /**
     * @param  list<int>  $sizes     numbers of values by axis
     * @param  array<int, array<int, array<int, array<int, true>>>>  $needed    [axis][later axis][value][value]
     * @param  array<int, array<int, array<int, array<int, true>>>>  $forbidden both ways
     * @param  \Closure(array<int, int>): ?array<int, int>  $extend    an allowed row with the given values, or null
     */
    public function __construct(
        private readonly array $sizes,
        private readonly array $needed,
        private readonly array $forbidden,
        private readonly \Closure $extend,
    ) {
        $this->axes = \count($sizes);
        $this->random = new \Random\Randomizer(new \Random\Engine\Mt19937(20261123));
    }

    /**
     * @return list<array<int, int>> value by axis
     */
    public function rows(): array
    {
        $best = $this->greedy(0);
        for ($try = 1; $try < 3; $try++) {
            $rows = $this->greedy($try);
            $best = \count($rows) < \count($best) ? $rows : $best;
        }
        while (\count($best) > $this->atLeast()) {
            $this->begin($best);
            $this->drop($this->leastNeeded());
            if (!$this->mend()) {
                break;
            }
            $best = $this->rows;
        }
        $this->begin($best);
        for ($r = \count($this->rows) - 1; $r >= 0; $r--) {
            if (0 === $this->alone($r)) {
                $this->drop($r);
            }
        }

        return array_map(static function (array $row): array {
            ksort($row);

            return $row;
        }, $this->rows);
    }

    /**
     * No set is smaller than the pairs of two axes that need a row each.
     */
    private function atLeast(): int
    {
        $most = 0;
        foreach ($this->needed as $others) {
            foreach ($others as $values) {
                $most = max($most, array_sum(array_map(\count(...), $values)));
            }
        }

        return $most;
    }

    /**
     * @return list<array<int, int>>
     */
    private function greedy(int $try): array
    {
        $this->begin([]);
        while ([] !== $this->open) {
            [$a, $b, $va, $vb] = $this->open[0 === $try ? array_key_first($this->open) : $this->pick(array_keys($this->open))];
            $row = [$a => $va, $b => $vb];
            $rest = array_values(array_diff(range(0, $this->axes - 1), [$a, $b]));
            if (0 !== $try) {
                $rest = $this->random->shuffleArray($rest);
            }
            foreach ($rest as $axis) {
                $row[$axis] = $this->bestValue($row, $axis);
            }
            $this->add($row);
        }

        return $this->rows;
    }

    /**
     * @param  array<int, int>  $row
     */
    private function bestValue(array $row, int $axis): int
    {
        $best = 0;
        $most = -1;
        for ($value = 0; $value < $this->sizes[$axis]; $value++) {
            $gain = 0;
            foreach ($row as $other => $with) {
                $gain += 0 === $this->held($axis, $value, $other, $with) ? 1 : 0;
            }
            if ($gain > $most && ([] === $this->forbidden || null !== ($this->extend)($row + [$axis => $value]))) {
                [$best, $most] = [$value, $gain];
            }
        }

        return $best;
    }

    /**
     * Changes one cell at a time until every pair is held again.
     */
    private function mend(): bool
    {
        $tabu = [];
        for ($i = 0; $i < self::EXCHANGES; $i++) {
            if ([] === $this->open) {
                return true;
            }
            [$a, $b, $va, $vb] = $this->open[$this->pick(array_keys($this->open))];
            $choices = [];
            $least = \PHP_INT_MAX;
            foreach ($this->rows as $r => $row) {
                $cell = $row[$a] === $va ? [$b, $vb] : ($row[$b] === $vb ? [$a, $va] : null);
                if (null === $cell || ($tabu[$r][$cell[0]][$cell[1]] ?? -1) >= $i || !$this->allowed($row, ...$cell)) {
                    continue;
                }
                $cost = $this->cost($row, ...$cell);
                if ($cost < $least) {
                    [$choices, $least] = [[], $cost];
                }
                if ($cost === $least) {
                    $choices[] = [$r, $cell];
                }
            }
            if ([] === $choices) {
                $this->force($a, $b, $va, $vb);

                continue;
            }
            [$r, [$axis, $value]] = $choices[$this->pick(array_keys($choices))];
            $tabu[$r][$axis][$this->rows[$r][$axis]] = $i + self::TABU;
            $this->set($r, $axis, $value);
        }

        return [] === $this->open;
    }

    /**
     * Where no single cell can be changed, a new row is made around the pair.
     */
    private function force(int $a, int $b, int $va, int $vb): void
    {
        $r = $this->leastNeeded();
        $row = ($this->extend)([$a => $va, $b => $vb]) ?? throw new \LogicException('Only possible pairs are needed.');
        $this->drop($r);
        $this->add($row);
    }

    /**
     * @param  array<int, int>  $row
     */
    private function allowed(array $row, int $axis, int $value): bool
    {
        foreach ($this->forbidden[$axis][$value] ?? [] as $other => $values) {
            if (isset($values[$row[$other]])) {
                return false;
            }
        }

        return true;
    }

    /**
     * How many more pairs would be open if the cell were changed.
     *
     * @param  array<int, int>  $row
     */
    private function cost(array $row, int $axis, int $value): int
    {
        $cost = 0;
        foreach ($row as $other => $with) {
            if ($other !== $axis) {
                $cost +=
                    (1 === $this->held($axis, $row[$axis], $other, $with) ? 1 : 0) -
                    (0 === $this->held($axis, $value, $other, $with) ? 1 : 0);
            }
        }

        return $cost;
    }

    /**
     * How many pairs only this row holds.
     */
    private function alone(int $r): int
    {
        $n = 0;
        foreach ($this->rows[$r] as $a => $va) {
            foreach ($this->rows[$r] as $b => $vb) {
                $n += $a < $b && 1 === $this->held($a, $va, $b, $vb) ? 1 : 0;
            }
        }

        return $n;
    }

    private function leastNeeded(): int
    {
        $least = 0;
        $few = \PHP_INT_MAX;
        foreach (array_keys($this->rows) as $r) {
            $n = $this->alone($r);
            if ($n < $few) {
                [$least, $few] = [$r, $n];
            }
        }

        return $least;
    }

    /**
     * @param  list<array<int, int>>  $rows
     */
    private function begin(array $rows): void
    {
        $this->rows = $this->cover = $this->open = [];
        foreach ($this->needed as $a => $others) {
            foreach ($others as $b => $values) {
                foreach ($values as $va => $with) {
                    foreach (array_keys($with) as $vb) {
                        $this->cover[$a][$b][$va][$vb] = 0;
                        $this->open[$this->number($a, $va, $b, $vb)] = [$a, $b, $va, $vb];
                    }
                }
            }
        }
        foreach ($rows as $row) {
            $this->add($row);
        }
    }

    /**
     * @param  array<int, int>  $row
     */
    private function add(array $row): void
    {
        $this->rows[] = $row;
        foreach ($row as $a => $va) {
            foreach ($row as $b => $vb) {
                if ($a < $b) {
                    $this->count($a, $va, $b, $vb, 1);
                }
            }
        }
    }

    private function drop(int $r): void
    {
        foreach ($this->rows[$r] as $a => $va) {
            foreach ($this->rows[$r] as $b => $vb) {
                if ($a < $b) {
                    $this->count($a, $va, $b, $vb, -1);
                }
            }
        }
        array_splice($this->rows, $r, 1);
    }

    private function set(int $r, int $axis, int $value): void
    {
        foreach ($this->rows[$r] as $other => $with) {
            if ($other !== $axis) {
                $this->count($axis, $this->rows[$r][$axis], $other, $with, -1);
                $this->count($axis, $value, $other, $with, 1);
            }
        }
        $this->rows[$r][$axis] = $value;
    }

    private function count(int $a, int $va, int $b, int $vb, int $by): void
    {
        if ($a > $b) {
            [$a, $va, $b, $vb] = [$b, $vb, $a, $va];
        }
        $now = $this->cover[$a][$b][$va][$vb] += $by;
        if (0 === $now) {
            $this->open[$this->number($a, $va, $b, $vb)] = [$a, $b, $va, $vb];
        } elseif (1 === $now && 1 === $by) {
            unset($this->open[$this->number($a, $va, $b, $vb)]);
        }
    }

    /**
     * How many rows hold a pair; one that is not needed counts as held by many.
     */
    private function held(int $a, int $va, int $b, int $vb): int
    {
        return $a < $b ? $this->cover[$a][$b][$va][$vb] ?? 9 : $this->cover[$b][$a][$vb][$va] ?? 9;
    }

    private function number(int $a, int $va, int $b, int $vb): int
    {
        return (($a * 64 + $b) * 1024 + $va) * 1024 + $vb;
    }

    /**
     * @param  non-empty-list<int>  $keys
     */
    private function pick(array $keys): int
    {
        return $keys[$this->random->getInt(0, \count($keys) - 1)];
    }
}
