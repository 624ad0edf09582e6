<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Http\Resources;

use OpenApi\Attributes as OA;

/**
 * Entries being added to a cycle.
 */
#[OA\Schema(description: 'Entries being added to a cycle.')]
final readonly class AdditionState
{
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property(enum: ['running', 'stopping', 'done', 'cancelled', 'failed'])] public string $state,
        #[OA\Property] public int $done,
        #[OA\Property] public int $total,
        #[OA\Property] public string $problem,
        #[OA\Property] public int $conditions,
        #[
            OA\Property(description: 'Why nothing goes on, where nothing works in the background; empty otherwise'),
        ]
        public string $standstill,
    ) {}
}
