<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Data;

use OpenApi\Attributes as OA;

/**
 * What is proven of the requirements of a project.
 */
#[OA\Schema(description: 'What is proven of the requirements of a project: each after the one above it, in the order of its tree.')]
final readonly class CoverageTree
{
    /**
     * @param  list<StateCount>  $counts
     * @param  list<RequirementRow>  $rows
     */
    public function __construct(
        #[OA\Property(format: 'date-time')] public string $as_of,
        #[
            OA\Property(
                description: 'Over all that have cases or nothing below them, worst first',
                type: 'array',
                items: new OA\Items(ref: StateCount::class),
            ),
        ]
        public array $counts,
        #[OA\Property(description: 'Different cases that are linked')] public int $cases,
        #[OA\Property] public int $walked,
        #[OA\Property(type: 'array', items: new OA\Items(ref: RequirementRow::class))] public array $rows,
        #[OA\Property] public CoverageLenses $lenses,
    ) {}
}
