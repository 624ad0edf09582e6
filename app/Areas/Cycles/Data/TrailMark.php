<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use OpenApi\Attributes as OA;

/**
 * Entries beside each other on the trail of a cycle that show the same.
 */
#[OA\Schema(description: 'Entries beside each other on the trail of a cycle that show the same.')]
final readonly class TrailMark
{
    public function __construct(
        #[OA\Property(description: 'The first of them')] public string $entry_id,
        #[
            OA\Property(enum: ['pass', 'fail', 'blocked', 'not_applicable', 'not_run', 'in_progress', 'retest', 'held']),
        ]
        public string $shown,
        #[OA\Property(description: 'Its key and title; of several empty')] public string $name,
        #[OA\Property(description: 'Its configuration')] public string $group,
        #[OA\Property] public int $count,
    ) {}
}
