<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * A piece of a text with its values filled in. What is copied of an empty value is nothing, of a secret one not told.
 */
#[
    OA\Schema(
        description: 'A piece of a text with its values filled in. What is copied of an empty value is nothing, of a secret one not told.',
    ),
]
final readonly class PreviewPart
{
    public function __construct(
        #[OA\Property] public string $text,
        #[OA\Property] public ?string $column,
        #[OA\Property] public bool $empty,
        #[OA\Property] public bool $secret,
    ) {}
}
