<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use OpenApi\Attributes as OA;

/**
 * What an entry waits for.
 */
#[OA\Schema(description: 'What an entry waits for.')]
final readonly class PlanCondition
{
    public function __construct(
        #[OA\Property] public string $needs_id,
        #[OA\Property(enum: ['after', 'only_if_passed'])] public string $kind,
        #[OA\Property] public string $case_key,
        #[OA\Property(description: 'Where it stands; behind the entry itself the order is wrong')] public int $position,
    ) {}
}
