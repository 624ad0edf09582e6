<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use OpenApi\Attributes as OA;

/**
 * A case that cannot be walked, with why.
 */
#[OA\Schema(description: 'A case that cannot be walked, with why.')]
final readonly class RefusedSelection
{
    public function __construct(
        #[OA\Property] public string $key,
        #[OA\Property] public string $title,
        #[OA\Property] public string $why,
    ) {}
}
