<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use OpenApi\Attributes as OA;

/**
 * Dates before and after.
 */
#[OA\Schema(description: 'Dates before and after.')]
final readonly class DateMove
{
    public function __construct(
        #[OA\Property] public string $cycle_id,
        #[OA\Property] public string $name,
        #[OA\Property] public string $starts_on,
        #[OA\Property] public string $ends_on,
        #[OA\Property] public string $new_starts_on,
        #[OA\Property] public string $new_ends_on,
        #[OA\Property] public int $entries,
        #[OA\Property] public int $windows,
    ) {}
}
