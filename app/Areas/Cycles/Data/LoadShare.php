<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use OpenApi\Attributes as OA;

/**
 * What a person would get and have then.
 */
#[OA\Schema(description: 'What a person would get and have then.')]
final readonly class LoadShare
{
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $name,
        #[OA\Property] public int $gets,
        #[OA\Property] public int $entries,
        #[OA\Property] public int $seconds,
        #[OA\Property] public int $capacity_seconds,
    ) {}
}
