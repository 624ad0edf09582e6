<?php

declare(strict_types=1);

namespace LucidStep\Core\Coverage;

/**
 * A data row of an entry that has no finished attempt: it counts only where its cell has none either.
 */
final readonly class PlannedRound
{
    /**
     * @param  CoverageState  $shown what the entry shows: not run, in progress, or blocked by what it needs
     */
    public function __construct(public string $case, public ?string $configuration, public ?string $row, public CoverageState $shown) {}
}
