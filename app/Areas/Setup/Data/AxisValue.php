<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Data;

use OpenApi\Attributes as OA;

/**
 * A value of an axis.
 */
#[OA\Schema(description: 'A value of an axis.')]
final readonly class AxisValue
{
    public function __construct(#[OA\Property] public string $id, #[OA\Property] public string $name) {}
}
