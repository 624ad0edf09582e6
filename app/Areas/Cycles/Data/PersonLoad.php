<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use OpenApi\Attributes as OA;

/**
 * What somebody has to do in a cycle, against the time they have.
 */
#[OA\Schema(description: 'What somebody has to do in a cycle, against the time they have.')]
final readonly class PersonLoad
{
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $name,
        #[OA\Property] public string $role,
        #[OA\Property] public int $entries,
        #[OA\Property] public int $seconds,
        #[OA\Property] public int $capacity_seconds,
        #[OA\Property] public int $days_left,
        #[OA\Property] public int $minutes_per_day,
        #[OA\Property] public bool $tester,
    ) {}
}
