<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Data;

use OpenApi\Attributes as OA;

/**
 * A step on the way to a fault, as it was walked.
 */
#[OA\Schema(description: 'A step on the way to a fault, as it was walked.')]
final readonly class ReproductionStep
{
    public function __construct(
        #[OA\Property(description: 'As the case numbers it')] public int $position,
        #[OA\Property] public string $action,
        #[OA\Property] public string $data,
        #[OA\Property] public string $expected,
        #[OA\Property(enum: ['pass', 'fail', 'blocked', 'not_applicable', 'not_run'])] public string $verdict,
        #[OA\Property] public string $happened,
        #[OA\Property(description: 'How often it was tried')] public int $tries,
        #[OA\Property] public int $tries_failed,
    ) {}
}
