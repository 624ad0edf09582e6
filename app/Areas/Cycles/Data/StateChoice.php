<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use OpenApi\Attributes as OA;

/**
 * A state that a cycle may go to, and whether it needs a word of why.
 */
#[OA\Schema(description: 'A state that a cycle may go to, and whether it needs a word of why.')]
final readonly class StateChoice
{
    public function __construct(
        #[OA\Property(enum: ['draft', 'in_review', 'released', 'closed', 'abandoned'])] public string $to,
        #[OA\Property] public bool $needs_reason,
    ) {}
}
