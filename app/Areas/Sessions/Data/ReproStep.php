<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Data;

use OpenApi\Attributes as OA;

/**
 * A step of what leads to a fault.
 */
#[OA\Schema(description: 'A step of what leads to a fault.')]
final readonly class ReproStep
{
    public function __construct(
        #[OA\Property(description: 'The line it comes from; null: written by hand')] public ?string $line,
        #[OA\Property] public string $words,
    ) {}
}
