<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Data;

use OpenApi\Attributes as OA;

/**
 * How to get to a fault, where it was met on a walk.
 */
#[OA\Schema(description: 'How to get to a fault, where it was met on a walk.')]
final readonly class ReproductionAnswer
{
    public function __construct(#[OA\Property(description: 'null: it was met on no walk')] public ?Reproduction $reproduction) {}
}
