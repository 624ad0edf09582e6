<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Data;

use OpenApi\Attributes as OA;

/**
 * Two values that cannot meet.
 */
#[OA\Schema(description: 'Two values that cannot meet.')]
final readonly class ForbiddenPair
{
    public function __construct(
        #[OA\Property] public string $axis,
        #[OA\Property] public string $value,
        #[OA\Property] public string $other_axis,
        #[OA\Property] public string $other_value,
    ) {}
}
