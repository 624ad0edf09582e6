<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * A version of a case.
 */
#[OA\Schema(description: 'A version of a case.')]
final readonly class VersionLine
{
    public function __construct(
        #[OA\Property] public int $number,
        #[OA\Property] public string $at,
        #[OA\Property] public string $by,
        #[OA\Property] public bool $approved,
        #[OA\Property] public bool $current,
    ) {}
}
