<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * Two cases that seem to say the same.
 */
#[OA\Schema(description: 'Two cases that seem to say the same.')]
final readonly class SimilarCase
{
    public function __construct(
        #[OA\Property] public CaseLine $one,
        #[OA\Property] public CaseLine $other,
        #[OA\Property] public float $score,
    ) {}
}
