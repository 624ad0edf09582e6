<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Data;

use OpenApi\Attributes as OA;

/**
 * A value of the row that a round is walked with.
 */
#[OA\Schema(description: 'A value of the row that a round is walked with.')]
final readonly class RoundValue
{
    public function __construct(
        #[OA\Property] public string $name,
        #[OA\Property] public string $value,
        #[OA\Property] public bool $secret,
        #[OA\Property] public bool $hidden,
    ) {}
}
