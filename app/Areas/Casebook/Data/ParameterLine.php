<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * A parameter of a routine.
 */
#[OA\Schema(description: 'A parameter of a routine.')]
final readonly class ParameterLine
{
    public function __construct(#[OA\Property] public string $name, #[OA\Property] public string $default) {}
}
