<?php

declare(strict_types=1);

namespace LucidStep\Core\Planning;

/**
 * Proposes what to walk when there is not time for everything (rules of the job, 6).
 *
 * Worth of a set = Σ base + ½ × Σ over the requirements it covers of the largest base in the set that covers it. Exact
 * for up to {@see EXACT} candidates without conditions; else greedy by added worth per time, an entry with what it
 * needs as one.
 */
final class ShortOfTime
{
    /** So many candidates are tried out fully. */
    public const EXACT = 20;

    /** @var array<string, Candidate> in cycle order */
    private array $candidates = [];

    /** @var array<string, int> */
    private array $place;

    /** @var array<string, list<string>> an entry with all it needs that is not done, by entry */
    private array $units = [];

    /** @var list<string> the best set found */
    private array $best = [];

    private float $bestWorth = 0.0;

    /**
     * @param  list<Candidate>  $candidates without a final verdict, in cycle order; what needs an entry that is not among them is none
     * @param  int  $budget     seconds
     * @param  list<string>  $locked     entries that must be in
     */
    private function __construct(array $candidates, private readonly int $budget, private readonly array $locked)
    {
        foreach ($candidates as $candidate) {
            $this->candidates[$candidate->id] = $candidate;
        }
        $this->place = array_flip(array_keys($this->candidates));
        foreach (array_keys($this->candidates) as $id) {
            $this->unit($id);
        }
    }

    /**
     * @param  list<Candidate>  $candidates entries without a final verdict, in cycle order
     * @param  int  $budget     seconds for the named people together
     * @param  list<string>  $locked     entries that must be in, with what they need
     * @param  list<string>  $out        entries that stay out, and what needs them
     * @param  ?Conditions  $conditions for the order; all of the cycle
     *
     * @throws TooLittleTime when what must be in takes longer than there is
     */
    public static function plan(
        array $candidates,
        int $budget,
        array $locked = [],
        array $out = [],
        ?Conditions $conditions = null,
    ): TimePlan {
        $plan = new self(
            array_values(array_filter($candidates, static fn(Candidate $c): bool => !\in_array($c->id, $out, true))),
            $budget,
            $locked,
        );
        $chosen = $plan->choose();
        $order = $plan->ordered($chosen, $conditions ?? Conditions::of([]));
        $left = [];
        foreach ($candidates as $candidate) {
            if (!isset($chosen[$candidate->id])) {
                $left[] = $candidate->id;
            }
        }

        return new TimePlan(
            $order,
            $left,
            self::worth(array_map(static fn(string $id): Candidate => $plan->candidates[$id], $order)),
            self::worth($candidates),
            array_sum(array_map(static fn(string $id): int => $plan->candidates[$id]->seconds, $order)),
        );
    }

    /**
     * @param  list<Candidate>  $set
     */
    public static function worth(array $set): float
    {
        $worth = 0.0;
        $covered = [];
        foreach ($set as $candidate) {
            $worth += $candidate->base;
            foreach ($candidate->requirements as $requirement) {
                $covered[$requirement] = max($covered[$requirement] ?? 0.0, $candidate->base);
            }
        }

        return $worth + array_sum($covered) / 2;
    }

    /**
     * @return array<string, true>
     */
    private function choose(): array
    {
        $chosen = $covered = [];
        $left = $this->budget;
        foreach ($this->locked as $id) {
            foreach ($this->units[$id] ?? [] as $member) {
                $left -= isset($chosen[$member]) ? 0 : $this->candidates[$member]->seconds;
                $chosen[$member] = true;
            }
        }
        if ($left < 0) {
            throw TooLittleTime::forLocked($this->budget - $left, $this->budget);
        }
        foreach (array_keys($chosen) as $id) {
            $this->cover($covered, $id);
        }
        $base = $chosen;
        $greedy = $this->greedy($chosen, $covered, $left);
        $free = array_values(array_filter(array_keys($this->units), static fn(string $id): bool => !isset($base[$id])));
        $alone =
            [] ===
            array_filter(
                $free,
                fn(string $id): bool => [] !== array_filter($this->candidates[$id]->needs, static fn(string $n): bool => !isset($base[$n])),
            );
        if (\count($free) <= self::EXACT && $alone) {
            return $base + $this->exact($free, $covered, $left, array_diff_key($greedy, $base));
        }

        return $greedy;
    }

    /**
     * @param  array<string, true>  $chosen
     * @param  array<string, float>  $covered largest base by requirement
     *
     * @return array<string, true>
     */
    private function greedy(array $chosen, array $covered, int $left): array
    {
        while (true) {
            $best = null;
            $most = 0.0;
            foreach ($this->units as $id => $members) {
                if (isset($chosen[$id])) {
                    continue;
                }
                $seconds = 0;
                $worth = 0.0;
                $with = $covered;
                foreach ($members as $member) {
                    if (!isset($chosen[$member])) {
                        $seconds += $this->candidates[$member]->seconds;
                        $worth += $this->cover($with, $member);
                    }
                }
                if ($seconds <= $left && $worth / max(1, $seconds) > $most) {
                    [$best, $most] = [[$members, $seconds], $worth / max(1, $seconds)];
                }
            }
            if (null === $best) {
                return $chosen;
            }
            foreach ($best[0] as $member) {
                if (!isset($chosen[$member])) {
                    $this->cover($covered, $member);
                    $chosen[$member] = true;
                }
            }
            $left -= $best[1];
        }
    }

    /**
     * Branch and bound: depth first, cut off where even fractions of the rest could not do better.
     *
     * @param  list<string>  $free
     * @param  array<string, float>  $covered
     * @param  array<string, true>  $greedy the set to beat
     *
     * @return array<string, true>
     */
    private function exact(array $free, array $covered, int $budget, array $greedy): array
    {
        $most = [];
        foreach ($free as $id) {
            $with = $covered;
            $most[$id] = $this->cover($with, $id);
        }
        usort(
            $free,
            fn(string $a, string $b): int => $most[$b] / max(1, $this->candidates[$b]->seconds) <=>
            $most[$a] / max(1, $this->candidates[$a]->seconds) ?:
            $this->place[$a] <=> $this->place[$b],
        );
        $this->best = array_keys($greedy);
        $this->bestWorth = 0.0;
        $with = $covered;
        foreach ($this->best as $id) {
            $this->bestWorth += $this->cover($with, $id);
        }
        $this->branch($free, $most, 0, [], $covered, $budget, 0.0);

        return array_fill_keys($this->best, true);
    }

    /**
     * @param  list<string>  $free    the best per time first
     * @param  array<string, float>  $most    what each could add at most
     * @param  int  $at      those before are decided
     * @param  list<string>  $set     taken so far
     * @param  array<string, float>  $covered
     */
    private function branch(array $free, array $most, int $at, array $set, array $covered, int $left, float $worth): void
    {
        if ($worth > $this->bestWorth + 1e-9) {
            [$this->best, $this->bestWorth] = [$set, $worth];
        }
        $bound = $worth;
        $room = $left;
        for ($i = $at; $i < \count($free) && $room > 0; $i++) {
            $seconds = max(1, $this->candidates[$free[$i]]->seconds);
            $bound += $most[$free[$i]] * min(1, $room / $seconds);
            $room -= $seconds;
        }
        if ($at >= \count($free) || $bound <= $this->bestWorth + 1e-9) {
            return;
        }
        $candidate = $this->candidates[$free[$at]];
        if ($candidate->seconds <= $left) {
            $with = $covered;
            $gain = $this->cover($with, $candidate->id);
            $this->branch($free, $most, $at + 1, [...$set, $candidate->id], $with, $left - $candidate->seconds, $worth + $gain);
        }
        $this->branch($free, $most, $at + 1, $set, $covered, $left, $worth);
    }

    /**
     * Adds an entry to what is covered and says what it adds in worth.
     *
     * @param  array<string, float>  $covered
     */
    private function cover(array &$covered, string $id): float
    {
        $candidate = $this->candidates[$id];
        $gain = $candidate->base;
        foreach ($candidate->requirements as $requirement) {
            $more = max(0.0, $candidate->base - ($covered[$requirement] ?? 0.0));
            $gain += $more / 2;
            $covered[$requirement] = max($covered[$requirement] ?? 0.0, $candidate->base);
        }

        return $gain;
    }

    /**
     * By conditions, then added worth per time, ties by cycle order.
     *
     * @param  array<string, true>  $chosen
     *
     * @return list<string>
     */
    private function ordered(array $chosen, Conditions $conditions): array
    {
        $order = [];
        $covered = [];
        $open = $chosen;
        while ([] !== $open) {
            $best = null;
            $most = -1.0;
            foreach (array_keys($this->place) as $id) {
                if (
                    !isset($open[$id]) ||
                    [] !== array_filter($conditions->on($id), static fn(Condition $c): bool => isset($open[$c->needs]))
                ) {
                    continue;
                }
                $with = $covered;
                $rate = $this->cover($with, $id) / max(1, $this->candidates[$id]->seconds);
                if ($rate > $most) {
                    [$best, $most] = [$id, $rate];
                }
            }
            $best ??= (string) array_key_first($open);
            $this->cover($covered, $best);
            $order[] = $best;
            unset($open[$best]);
        }

        return $order;
    }

    /**
     * An entry with all that it needs, what is needed first; nothing for one whose needs cannot be met.
     *
     * @param  array<string, true>  $on the way here
     *
     * @return ?list<string>
     */
    private function unit(string $id, array $on = []): ?array
    {
        if (isset($this->units[$id])) {
            return $this->units[$id];
        }
        $candidate = $this->candidates[$id] ?? null;
        if (null === $candidate || isset($on[$id])) {
            return null;
        }
        $members = [];
        foreach ($candidate->needs as $need) {
            $unit = $this->unit($need, $on + [$id => true]);
            if (null === $unit) {
                return null;
            }
            array_push($members, ...$unit);
        }

        return $this->units[$id] = array_values(array_unique([...$members, $id]));
    }
}
