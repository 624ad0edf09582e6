<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Data;

use OpenApi\Attributes as OA;

/**
 * A group of a list of defects, and how many are in it.
 */
#[OA\Schema(description: 'A group of a list of defects, and how many are in it.')]
final readonly class DefectGroup
{
    public function __construct(
        #[OA\Property(description: 'What is the same in it; empty where nothing is said')] public string $value,
        #[OA\Property] public int $defects,
    ) {}
}
