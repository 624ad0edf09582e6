<?php

declare(strict_types=1);

namespace LucidStep\Core\Defects;

/**
 * Of which defect others are duplicates: a chain is followed to its first, and never bites its tail.
 */
final readonly class Duplicates
{
    /**
     * @param  array<string, string>  $of the defect that each is a duplicate of, by id
     */
    public function __construct(private array $of) {}

    /**
     * The first of its chain; itself where it is nobody's duplicate.
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
        return [
            $id,
            ...array_keys(
                array_filter($this->of, fn(string $of, string $other): bool => $id === $this->first($other), \ARRAY_FILTER_USE_BOTH),
            ),
        ];
    }

    /**
     * Whether one may be called a duplicate of another: not of itself, and not of one that leads back to it.
     */
    public function mayBe(string $id, string $of): bool
    {
        for ($at = $of, $steps = 0; $at !== $id && isset($this->of[$at]) && $steps <= \count($this->of); $steps++) {
            $at = $this->of[$at];
        }

        return $at !== $id;
    }
}
