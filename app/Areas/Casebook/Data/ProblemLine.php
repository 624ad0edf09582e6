<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * Something that would go wrong in the walk, where it is written.
 */
#[OA\Schema(description: 'Something that would go wrong in the walk, where it is written.')]
final readonly class ProblemLine
{
    public function __construct(
        #[OA\Property] public ?int $step,
        #[OA\Property] public string $field,
        #[OA\Property(enum: ['error', 'warning'])] public string $severity,
        #[OA\Property] public string $message,
        #[OA\Property(description: 'The name that is not known')] public ?string $name,
        #[OA\Property] public ?string $nearest,
    ) {}
}
