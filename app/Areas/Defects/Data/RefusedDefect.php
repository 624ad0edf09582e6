<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Data;

use OpenApi\Attributes as OA;

/**
 * A defect that an act leaves out, and why.
 */
#[OA\Schema(description: 'A defect that an act leaves out, and why.')]
final readonly class RefusedDefect
{
    public function __construct(
        #[OA\Property] public string $key,
        #[OA\Property] public string $title,
        #[OA\Property] public string $why,
    ) {}
}
