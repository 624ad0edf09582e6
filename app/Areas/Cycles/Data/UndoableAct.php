<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use LucidStep\App\Support\Data\Person;
use OpenApi\Attributes as OA;

/**
 * The newest act on a cycle that can still be undone.
 */
#[OA\Schema(description: 'The newest act on a cycle that can still be undone.')]
final readonly class UndoableAct
{
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $title,
        #[OA\Property] public Person $by,
        #[OA\Property] public string $at,
    ) {}
}
