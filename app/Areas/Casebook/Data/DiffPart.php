<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * A piece of a text that was kept, taken out or put in.
 */
#[OA\Schema(description: 'A piece of a text that was kept, taken out or put in.')]
final readonly class DiffPart
{
    public function __construct(
        #[OA\Property(enum: ['same', 'removed', 'added'])] public string $kind,
        #[OA\Property] public string $text,
    ) {}
}
