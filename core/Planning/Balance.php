<?php

declare(strict_types=1);

namespace LucidStep\Core\Planning;

/**
 * Hands unassigned entries out so that everybody is loaded alike (rules of the job, 6): load = time ÷ capacity, what is
 * joined by conditions stays together, the longest goes first.
 */
final class Balance
{
    /** A group is not kept together at the price of a load above so many times the fair one. */
    private const TOO_MUCH = 1.25;

    /** @var array<string, float> seconds by person */
    private array $time = [];

    /** @var array<string, string> */
    private array $given = [];

    private float $fair;

    /**
     * @param  non-empty-list<Assignee>  $workers with capacity, in list order
     * @param  list<AssignableEntry>  $work
     */
    private function __construct(private readonly array $workers, array $work)
    {
        $this->time = array_fill_keys(array_map(static fn(Assignee $w): string => $w->id, $workers), 0.0);
        $all = 0;
        foreach ($work as $one) {
            $all += $one->seconds;
            if (null !== $one->assignee && isset($this->time[$one->assignee])) {
                $this->time[$one->assignee] += $one->seconds;
            }
        }
        $this->fair = $all / array_sum(array_map(static fn(Assignee $w): float => $w->capacity, $workers));
    }

    /**
     * @param  list<Assignee>  $workers   in list order
     * @param  list<AssignableEntry>  $work      what is left to do, in cycle order
     * @param  Conditions  $conditions
     *
     *
     * @throws NobodyToAssign when nobody has capacity
     * @return array<string, string> whom each unassigned entry goes to, by entry
     */
    public static function of(array $workers, array $work, Conditions $conditions): array
    {
        $able = array_values(array_filter($workers, static fn(Assignee $w): bool => $w->capacity > 0));
        if ([] === $able) {
            throw NobodyToAssign::atAll();
        }
        $balance = new self($able, $work);
        foreach ($balance->units($work, $conditions) as $unit) {
            $balance->place($unit['work'], $unit['owner']);
        }

        return $balance->given;
    }

    /**
     * @param  list<AssignableEntry>  $work
     *
     * @return list<array{work: list<AssignableEntry>, owner: ?string}> the longest first, ties by cycle order
     */
    private function units(array $work, Conditions $conditions): array
    {
        $units = [];
        foreach (Groups::of(array_map(static fn(AssignableEntry $w): string => $w->id, $work), $conditions) as $members) {
            $group = array_map(static fn(int $i): AssignableEntry => $work[$i], $members);
            $owners = array_values(array_unique(array_filter(array_map(static fn(AssignableEntry $w): ?string => $w->assignee, $group))));
            $open = array_values(array_filter($group, static fn(AssignableEntry $w): bool => null === $w->assignee));
            if ([] !== $open) {
                $owner = 1 === \count($owners) && isset($this->time[$owners[0]]) ? $owners[0] : null;
                $units[] = ['work' => $open, 'owner' => $owner, 'seconds' => self::seconds($open), 'at' => $members[0]];
            }
        }
        usort($units, static fn(array $a, array $b): int => [-$a['seconds'], $a['at']] <=> [-$b['seconds'], $b['at']]);

        return array_map(static fn(array $u): array => ['work' => $u['work'], 'owner' => $u['owner']], $units);
    }

    /**
     * @param  list<AssignableEntry>  $unit
     */
    private function place(array $unit, ?string $owner): void
    {
        $seconds = self::seconds($unit);
        $to = $owner ?? $this->least($seconds);
        if (\count($unit) > 1 && $this->load($to, $seconds) > self::TOO_MUCH * $this->fair) {
            usort($unit, static fn(AssignableEntry $a, AssignableEntry $b): int => $b->seconds <=> $a->seconds);
            foreach ($unit as $one) {
                $this->give(
                    $one,
                    null !== $owner && $this->load($owner, $one->seconds) <= self::TOO_MUCH * $this->fair
                        ? $owner
                        : $this->least($one->seconds),
                );
            }

            return;
        }
        foreach ($unit as $one) {
            $this->give(
                $one,
                1 === \count($unit) && null !== $owner && $this->load($owner, $seconds) > self::TOO_MUCH * $this->fair
                    ? $this->least($seconds)
                    : $to,
            );
        }
    }

    private function give(AssignableEntry $work, string $to): void
    {
        $this->given[$work->id] = $to;
        $this->time[$to] += $work->seconds;
    }

    /**
     * Who would be loaded least after taking so much, ties by list order.
     */
    private function least(int $seconds): string
    {
        $best = $this->workers[0]->id;
        $least = \INF;
        foreach ($this->workers as $worker) {
            $load = ($this->time[$worker->id] + $seconds) / $worker->capacity;
            if ($load < $least) {
                [$best, $least] = [$worker->id, $load];
            }
        }

        return $best;
    }

    private function load(string $person, int $more): float
    {
        foreach ($this->workers as $worker) {
            if ($worker->id === $person) {
                return ($this->time[$person] + $more) / $worker->capacity;
            }
        }

        return \INF;
    }

    /**
     * @param  list<AssignableEntry>  $work
     */
    private static function seconds(array $work): int
    {
        return array_sum(array_map(static fn(AssignableEntry $w): int => $w->seconds, $work));
    }
}
