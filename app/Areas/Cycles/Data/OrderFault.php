<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use OpenApi\Attributes as OA;

/**
 * An entry that stands before one it depends on.
 */
#[OA\Schema(description: 'An entry that stands before one it depends on.')]
final readonly class OrderFault
{
    public function __construct(
        #[OA\Property] public string $entry_id,
        #[OA\Property(description: 'Its case')] public string $case_key,
        #[OA\Property] public string $needs_id,
        #[OA\Property] public string $needs_case_key,
        #[OA\Property(enum: ['after', 'only_if_passed'])] public string $kind,
    ) {}
}
