<?php

declare(strict_types=1);

namespace LucidStep\Core\Coverage;

/**
 * What a cell comes to, or a case over its cells.
 */
final readonly class Outcome
{
    /**
     * @param  bool  $isWalked whether it was walked to its end; of a case, whether each of its cells was
     */
    public function __construct(public CoverageState $state, public bool $isWalked) {}

    /**
     * @param  list<self>  $cells
     */
    public static function ofCase(array $cells): self
    {
        $state = CoverageState::worst(array_map(static fn(self $c): CoverageState => $c->state, $cells));
        $walked = array_filter($cells, static fn(self $c): bool => $c->isWalked);

        return new self($state ?? CoverageState::NotRun, [] !== $cells && \count($walked) === \count($cells));
    }
}
