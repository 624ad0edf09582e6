<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Data;

use LucidStep\Core\Defects\DefectRelation;
use LucidStep\Core\Defects\DefectState;
use OpenApi\Attributes as OA;

/**
 * Another defect, and how this one stands to it.
 */
#[OA\Schema(description: 'Another defect, and how this one stands to it.')]
final readonly class RelatedDefect
{
    public function __construct(
        #[OA\Property(enum: DefectRelation::class)] public string $relation,
        #[OA\Property] public string $id,
        #[OA\Property] public string $key,
        #[OA\Property] public string $title,
        #[OA\Property(enum: DefectState::class)] public string $state,
        #[OA\Property] public bool $closed,
    ) {}
}
