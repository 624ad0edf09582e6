<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * A folder of the casebook, with how many cases stand in it.
 */
#[OA\Schema(description: 'A folder of the casebook, with how many cases stand in it.')]
final readonly class FolderLine
{
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public ?string $parent_id,
        #[OA\Property] public string $name,
        #[OA\Property] public int $cases,
    ) {}
}
