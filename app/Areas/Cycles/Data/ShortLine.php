<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use OpenApi\Attributes as OA;

/**
 * An entry in a plan for too little time.
 */
#[OA\Schema(description: 'An entry in a plan for too little time.')]
final readonly class ShortLine
{
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $key,
        #[OA\Property] public string $title,
        #[OA\Property] public string $configuration,
        #[OA\Property] public int $seconds,
        #[OA\Property] public float $worth,
        #[OA\Property] public ?string $why,
    ) {}
}
