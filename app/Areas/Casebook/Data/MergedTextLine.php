<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * One text that two people may have changed.
 */
#[OA\Schema(description: 'One text that two people may have changed.')]
final readonly class MergedTextLine
{
    public function __construct(
        #[OA\Property] public string $field,
        #[OA\Property(enum: ['same', 'mine', 'theirs', 'conflict'])] public string $outcome,
        #[OA\Property] public string $base,
        #[OA\Property] public string $mine,
        #[OA\Property] public string $theirs,
    ) {}
}
