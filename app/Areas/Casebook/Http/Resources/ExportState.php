<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Resources;

use OpenApi\Attributes as OA;

/**
 * Cases on their way out.
 */
#[OA\Schema(description: 'Cases on their way out.')]
final readonly class ExportState
{
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property(enum: ['waiting', 'running', 'done', 'failed'])] public string $state,
        #[OA\Property] public string $format,
        #[OA\Property] public string $name,
        #[OA\Property] public int $done,
        #[OA\Property] public int $total,
        #[OA\Property] public int $bytes,
        #[OA\Property] public string $problem,
        #[
            OA\Property(description: 'Why nothing goes on, where nothing works in the background; empty otherwise'),
        ]
        public string $standstill,
    ) {}
}
