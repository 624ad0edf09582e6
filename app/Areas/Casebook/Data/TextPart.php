<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * A piece of a text, and whether it was searched for.
 */
#[OA\Schema(description: 'A piece of a text, and whether it was searched for.')]
final readonly class TextPart
{
    public function __construct(#[OA\Property] public string $text, #[OA\Property] public bool $hit) {}
}
