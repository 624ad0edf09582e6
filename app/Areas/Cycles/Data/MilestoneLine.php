<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use LucidStep\App\Support\Data\Counts;
use OpenApi\Attributes as OA;

/**
 * A milestone with the counts of its cycles.
 */
#[OA\Schema(description: 'A milestone with the counts of its cycles.')]
final readonly class MilestoneLine
{
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $name,
        #[OA\Property] public string $type,
        #[OA\Property] public string $description,
        #[OA\Property] public string $due_on,
        #[OA\Property] public int $cycles,
        #[OA\Property] public Counts $counts,
        #[OA\Property] public int $total,
        #[OA\Property(description: 'Its state, to be sent along when it is changed')] public string $seen,
    ) {}
}
