<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Data;

use LucidStep\Core\Coverage\CoverageState;
use OpenApi\Attributes as OA;

/**
 * A requirement with what it shows in each column of the grid.
 */
#[OA\Schema(description: 'A requirement with what it shows in each column of the grid.')]
final readonly class RequirementStatesRow
{
    /**
     * @param  list<string>  $states
     */
    public function __construct(
        #[OA\Property(format: 'uuid')] public string $id,
        #[OA\Property] public string $key,
        #[OA\Property] public string $title,
        #[OA\Property(format: 'uuid')] public ?string $parent_id,
        #[
            OA\Property(
                description: 'One for each column, in their order',
                type: 'array',
                items: new OA\Items(type: 'string', enum: CoverageState::class),
            ),
        ]
        public array $states,
    ) {}
}
