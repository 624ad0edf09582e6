<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Data;

use OpenApi\Attributes as OA;

/**
 * An area that nobody explored on the newest build: a charter is proposed for it.
 */
#[OA\Schema(description: 'An area that nobody explored on the newest build: a charter is proposed for it.')]
final readonly class Unexplored
{
    public function __construct(
        #[OA\Property(enum: ['folder', 'label'])] public string $area_kind,
        #[OA\Property(description: 'Its id, of a label its name')] public string $area_id,
        #[OA\Property] public string $area,
        #[OA\Property(description: 'The newest build on which it was explored; empty: never')] public string $since,
        #[OA\Property(description: 'Builds since then; null: never explored')] public ?int $builds_since,
        #[OA\Property(description: 'Days since it was explored last; null: never')] public ?int $days_since,
        #[OA\Property(description: 'Cases there')] public int $cases,
        #[OA\Property(description: 'Of them walked on the newest build')] public int $walked,
        #[OA\Property(description: 'Defects there that are open')] public int $open_defects,
    ) {}
}
