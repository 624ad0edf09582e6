<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Data;

use OpenApi\Attributes as OA;

/**
 * A value that a configuration holds.
 */
#[OA\Schema(description: 'A value that a configuration holds.')]
final readonly class ConfigurationValue
{
    public function __construct(#[OA\Property] public string $axis, #[OA\Property] public string $name) {}
}
