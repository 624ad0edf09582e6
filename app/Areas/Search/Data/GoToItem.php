<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Search\Data;

use OpenApi\Attributes as OA;

/**
 * Something one can go to.
 */
#[OA\Schema(description: 'Something one can go to.')]
final readonly class GoToItem
{
    public function __construct(
        #[OA\Property(enum: ['case', 'cycle', 'defect'])] public string $kind,
        #[OA\Property] public string $key,
        #[OA\Property] public string $title,
    ) {}
}
