<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Data;

use LucidStep\App\Support\Data\Named;
use OpenApi\Attributes as OA;

/**
 * What each requirement showed on each build or configuration.
 */
#[OA\Schema(description: 'What each requirement shows on each build or configuration: each row after the one above it.')]
final readonly class CoverageGrid
{
    /**
     * @param  list<Named>  $columns
     * @param  list<RequirementStatesRow>  $rows
     */
    public function __construct(
        #[OA\Property(format: 'date-time')] public string $as_of,
        #[OA\Property(enum: ['build', 'configuration'])] public string $by,
        #[
            OA\Property(description: 'In their order, of builds the newest last', type: 'array', items: new OA\Items(ref: Named::class)),
        ]
        public array $columns,
        #[OA\Property(description: 'As many there are through this lens')] public int $all_columns,
        #[OA\Property(type: 'array', items: new OA\Items(ref: RequirementStatesRow::class))] public array $rows,
    ) {}
}
