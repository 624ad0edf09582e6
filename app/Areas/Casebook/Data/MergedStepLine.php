<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * One step that two people may have changed.
 */
#[OA\Schema(description: 'One step that two people may have changed.')]
final readonly class MergedStepLine
{
    public function __construct(
        #[OA\Property(enum: ['same', 'mine', 'theirs', 'both', 'conflict'])] public string $outcome,
        #[OA\Property] public ?StepEdit $base,
        #[OA\Property] public ?StepEdit $mine,
        #[OA\Property] public ?StepEdit $theirs,
        #[OA\Property] public ?StepEdit $result,
    ) {}
}
