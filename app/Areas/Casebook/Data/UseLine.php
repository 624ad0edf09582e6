<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * Where something is used.
 */
#[OA\Schema(description: 'Where something is used.')]
final readonly class UseLine
{
    public function __construct(
        #[OA\Property(enum: ['case', 'routine', 'suite', 'filter'])] public string $kind,
        #[OA\Property] public string $id,
        #[OA\Property] public string $key,
        #[OA\Property] public string $title,
        #[OA\Property] public string $steps,
    ) {}
}
