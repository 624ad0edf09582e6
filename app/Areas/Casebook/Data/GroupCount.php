<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * How many cases share a value.
 */
#[OA\Schema(description: 'How many cases share a value.')]
final readonly class GroupCount
{
    public function __construct(#[OA\Property] public string $value, #[OA\Property] public int $cases) {}
}
