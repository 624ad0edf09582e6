<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Resources;

use OpenApi\Attributes as OA;

/**
 * A word of a file that the project does not have, and what it is taken for.
 */
#[OA\Schema(description: 'A word of a file that the project does not have, and what it is taken for.')]
final readonly class ImportWord
{
    /**
     * @param  ?string  $value null: nobody said, so that its cases are left out (a type is made new)
     */
    public function __construct(
        #[OA\Property(enum: ['priority', 'state', 'type', 'owner'])] public string $field,
        #[OA\Property] public string $word,
        #[OA\Property] public int $times,
        #[OA\Property] public ?string $value,
    ) {}
}
