<?php

declare(strict_types=1);

namespace LucidStep\Core\Planning;

/**
 * The conditions among the entries of one cycle; there is no loop in them.
 */
final readonly class Conditions
{
    /**
     * @param  list<Condition>  $all
     * @param  array<string, list<Condition>>  $byEntry
     */
    private function __construct(public array $all, private array $byEntry) {}

    /**
     * @param  list<Condition>  $conditions
     *
     * @throws LoopRefused when an entry would wait for itself, directly or through others
     */
    public static function of(array $conditions): self
    {
        $byEntry = [];
        foreach ($conditions as $condition) {
            $byEntry[$condition->entry][] = $condition;
        }
        self::refuseLoops($byEntry);

        return new self($conditions, $byEntry);
    }

    /**
     * Those of some further conditions that close no loop, taken one after the other: each is looked at with those before it.
     *
     * @param  list<Condition>  $further
     *
     * @return list<Condition>
     */
    public function joinable(array $further): array
    {
        $byEntry = $this->byEntry;
        $kept = [];
        foreach ($further as $condition) {
            if (!self::leads($byEntry, $condition->needs, $condition->entry)) {
                $byEntry[$condition->entry][] = $condition;
                $kept[] = $condition;
            }
        }

        return $kept;
    }

    /**
     * Whether an entry waits for another, directly or through others, or is it.
     *
     * @param  array<string, list<Condition>>  $byEntry
     */
    private static function leads(array $byEntry, string $from, string $to): bool
    {
        $seen = [$from => true];
        $open = [$from];
        while ([] !== $open) {
            $entry = array_pop($open);
            if ($entry === $to) {
                return true;
            }
            foreach ($byEntry[$entry] ?? [] as $condition) {
                if (!isset($seen[$condition->needs])) {
                    $seen[$condition->needs] = true;
                    $open[] = $condition->needs;
                }
            }
        }

        return false;
    }

    /**
     * What an entry waits for.
     *
     * @return list<Condition>
     */
    public function on(string $entry): array
    {
        return $this->byEntry[$entry] ?? [];
    }

    /**
     * The order check: each condition whose entry stands before the one it depends on.
     *
     * @param  list<string>  $order entry ids in cycle order
     *
     * @return list<Condition> in cycle order of the waiting entry
     */
    public function outOfOrder(array $order): array
    {
        $place = array_flip($order);
        $faults = array_values(
            array_filter(
                $this->all,
                static fn(Condition $c): bool => isset($place[$c->entry], $place[$c->needs]) && $place[$c->entry] < $place[$c->needs],
            ),
        );
        usort(
            $faults,
            static fn(Condition $a, Condition $b): int => [$place[$a->entry], $place[$a->needs]] <=> [$place[$b->entry], $place[$b->needs]],
        );

        return $faults;
    }

    /**
     * What waits moves behind what it needs, everything else stays as it was.
     *
     * @param  list<string>  $order entry ids in cycle order
     *
     * @return list<string>
     */
    public function sortedByDependencies(array $order): array
    {
        $place = array_flip($order);
        $open = $waiting = [];
        foreach ($this->all as $condition) {
            if (isset($place[$condition->entry], $place[$condition->needs])) {
                $open[$condition->entry] = ($open[$condition->entry] ?? 0) + 1;
                $waiting[$condition->needs][] = $condition->entry;
            }
        }
        /** @var \SplMinHeap<int> $ready */
        $ready = new \SplMinHeap();
        foreach ($order as $i => $entry) {
            if (!isset($open[$entry])) {
                $ready->insert($i);
            }
        }
        $sorted = [];
        while (!$ready->isEmpty()) {
            $entry = $order[$ready->extract()];
            $sorted[] = $entry;
            foreach ($waiting[$entry] ?? [] as $next) {
                if (0 === --$open[$next]) {
                    $ready->insert($place[$next]);
                }
            }
        }

        return $sorted;
    }

    /**
     * Walks the graph depth first, without recursion: chains may be long.
     *
     * @param  array<string, list<Condition>>  $byEntry
     */
    private static function refuseLoops(array $byEntry): void
    {
        $done = [];
        foreach (array_keys($byEntry) as $start) {
            $path = [];
            $stack = [[(string) $start, 0]];
            while ([] !== $stack) {
                [$entry, $next] = array_pop($stack);
                if (0 === $next) {
                    if (isset($done[$entry])) {
                        continue;
                    }
                    $path[$entry] = true;
                }
                $condition = ($byEntry[$entry] ?? [])[$next] ?? null;
                if (null === $condition) {
                    unset($path[$entry]);
                    $done[$entry] = true;

                    continue;
                }
                if (isset($path[$condition->needs])) {
                    $trail = array_map(strval(...), array_keys($path));
                    throw LoopRefused::along(\array_slice($trail, (int) array_search($condition->needs, $trail, true)));
                }
                $stack[] = [$entry, $next + 1];
                $stack[] = [$condition->needs, 0];
            }
        }
    }
}
