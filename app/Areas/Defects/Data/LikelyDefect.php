<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Data;

use OpenApi\Attributes as OA;

/**
 * A defect that may be the same as one that is being written, and why.
 */
#[OA\Schema(description: 'A defect that may be the same as one that is being written, and why.')]
final readonly class LikelyDefect
{
    /**
     * @param  list<string>  $words
     */
    public function __construct(
        #[OA\Property] public DefectLine $defect,
        #[OA\Property(description: 'How like it is, 0 to 1', type: 'number')] public float $likeness,
        #[OA\Property(description: 'Whether it is linked to this very step already')] public bool $at_this_step,
        #[OA\Property] public bool $same_case,
        #[OA\Property] public bool $same_component,
        #[OA\Property(description: 'Words that both say of what happened', items: new OA\Items(type: 'string'))] public array $words,
    ) {}
}
