<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use OpenApi\Attributes as OA;

/**
 * An entry that an act left as it is, with why.
 */
#[OA\Schema(description: 'An entry that an act left as it is, with why.')]
final readonly class RefusedEntry
{
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $key,
        #[OA\Property] public string $title,
        #[OA\Property] public string $why,
    ) {}
}
