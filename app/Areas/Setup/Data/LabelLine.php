<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Data;

use OpenApi\Attributes as OA;

/**
 * A label, and how many cases and defects have it.
 */
#[OA\Schema(description: 'A label, and how many cases and defects have it.')]
final readonly class LabelLine
{
    public function __construct(
        #[OA\Property] public string $name,
        #[OA\Property(description: 'By so many cases')] public int $uses,
        #[OA\Property(description: 'By so many defects')] public int $defects,
    ) {}
}
