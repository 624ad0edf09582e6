<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Today\Data;

use LucidStep\App\Areas\Cycles\Data\CycleSummary;
use OpenApi\Attributes as OA;

/**
 * A cycle that runs, with its pace.
 */
#[OA\Schema(description: 'A cycle that runs, with its pace.')]
final readonly class OverviewCycle
{
    public function __construct(
        #[OA\Property] public CycleSummary $cycle,
        #[OA\Property(description: 'Entries that cannot be walked now')] public int $held,
        #[OA\Property(description: 'Entries without a verdict')] public int $left,
        #[OA\Property(description: 'Working days up to its end, today among them')] public int $days_left,
        #[OA\Property(description: 'Entries a working day, in the last seven days')] public float $walked_per_day,
        #[OA\Property(description: 'Entries a working day to be done in time')] public float $needed_per_day,
        #[OA\Property(enum: ['done', 'late', 'behind', 'in_time'])] public string $pace,
    ) {}
}
