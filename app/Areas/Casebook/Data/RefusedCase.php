<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * A case that an act leaves out, and why.
 */
#[OA\Schema(description: 'A case that an act leaves out, and why.')]
final readonly class RefusedCase
{
    public function __construct(
        #[OA\Property] public string $key,
        #[OA\Property] public string $title,
        #[OA\Property] public string $why,
    ) {}
}
