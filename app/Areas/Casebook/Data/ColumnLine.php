<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * A column of a data table.
 */
#[OA\Schema(description: 'A column of a data table.')]
final readonly class ColumnLine
{
    public function __construct(#[OA\Property] public string $name, #[OA\Property] public bool $secret) {}
}
