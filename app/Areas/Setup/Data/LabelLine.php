<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Data;

use OpenApi\Attributes as OA;

/**
 * A label, and how many cases have it.
 */
#[OA\Schema(description: 'A label, and how many cases have it.')]
final readonly class LabelLine
{
    public function __construct(#[OA\Property] public string $name, #[OA\Property] public int $uses) {}
}
