<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * A requirement.
 */
#[OA\Schema(description: 'A requirement.')]
final readonly class RequirementLine
{
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $key,
        #[OA\Property] public string $title,
        #[OA\Property] public ?string $parent_id,
        #[OA\Property] public int $cases,
    ) {}
}
