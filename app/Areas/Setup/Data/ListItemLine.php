<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Data;

use OpenApi\Attributes as OA;

/**
 * A type or priority that cases can have.
 */
#[OA\Schema(description: 'A type or priority that cases can have.')]
final readonly class ListItemLine
{
    public function __construct(
        #[OA\Property] public string $value,
        #[OA\Property] public string $name,
        #[OA\Property] public int $weight,
        #[OA\Property] public int $uses,
    ) {}
}
