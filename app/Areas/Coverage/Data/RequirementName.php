<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Data;

use OpenApi\Attributes as OA;

/**
 * A requirement by its key.
 */
#[OA\Schema(description: 'A requirement by its key.')]
final readonly class RequirementName
{
    public function __construct(
        #[OA\Property(format: 'uuid')] public string $id,
        #[OA\Property] public string $key,
        #[OA\Property] public string $title,
    ) {}
}
