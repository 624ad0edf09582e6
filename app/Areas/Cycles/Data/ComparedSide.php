<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use OpenApi\Attributes as OA;

/**
 * A cycle or a build that is compared.
 */
#[OA\Schema(description: 'A cycle or a build that is compared.')]
final readonly class ComparedSide
{
    /**
     * @param  string  $id key of the cycle, id of the build
     * @param  string  $name of the cycle or the build
     * @param  string  $short for the head of a column
     */
    public function __construct(
        #[OA\Property(enum: ['cycle', 'build'])] public string $kind,
        #[OA\Property] public string $id,
        #[OA\Property] public string $name,
        #[OA\Property] public string $short,
    ) {}
}
