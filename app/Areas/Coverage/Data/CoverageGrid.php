<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Data;

use LucidStep\App\Support\Data\Named;
use OpenApi\Attributes as OA;

/**
 * What each requirement showed on each build.
 */
#[OA\Schema(description: 'What each requirement shows on each of the newest builds: each row after the one above it.')]
final readonly class CoverageGrid
{
    /**
     * @param  list<Named>  $builds
     * @param  list<RequirementStatesRow>  $rows
     */
    public function __construct(
        #[OA\Property(format: 'date-time')] public string $as_of,
        #[
            OA\Property(description: 'In their order, the newest last', type: 'array', items: new OA\Items(ref: Named::class)),
        ]
        public array $builds,
        #[OA\Property(description: 'As many builds there are through this lens')] public int $all_builds,
        #[OA\Property(type: 'array', items: new OA\Items(ref: RequirementStatesRow::class))] public array $rows,
    ) {}
}
