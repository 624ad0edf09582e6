<?php

declare(strict_types=1);

namespace LucidStep\Core\Defects;

/**
 * What points to what: a duplicate to the defect that it is the same as, a child to its parent. A chain is followed to its first, and
 * never bites its tail.
 */
final readonly class Chains
{
    /**
     * @param  array<string, string>  $of what each points to, by id
     */
    public function __construct(private array $of) {}

    /**
     * The first of its chain; itself where it points to nothing.
     */
    public function first(string $id): string
    {
        $seen = [];
        while (isset($this->of[$id]) && !isset($seen[$id])) {
            $seen[$id] = true;
            $id = $this->of[$id];
        }

        return $id;
    }

    /**
     * Itself and all whose chain leads to it.
     *
     * @return list<string>
     */
    public function allOf(string $id): array
    {
        $leads = fn(string $other): bool => $id !== $other && $id === $this->first($other);

        return [$id, ...array_values(array_filter(array_keys($this->of), $leads))];
    }

    /**
     * Whether one may point to another: not to itself, and not to one that leads back to it.
     */
    public function mayPoint(string $id, string $to): bool
    {
        for ($at = $to, $steps = 0; $at !== $id && isset($this->of[$at]) && $steps <= \count($this->of); $steps++) {
            $at = $this->of[$at];
        }

        return $at !== $id;
    }
}
