<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Resources;

use OpenApi\Attributes as OA;

/**
 * A case of the file and what becomes of it.
 */
#[OA\Schema(description: 'A case of the file and what becomes of it.')]
final readonly class ImportRow
{
    /**
     * @param  list<string>  $reasons
     */
    public function __construct(
        #[OA\Property] public int $row,
        #[OA\Property(enum: ['create', 'change', 'same', 'refuse'])] public string $is,
        #[OA\Property] public ?string $key,
        #[OA\Property] public string $title,
        #[OA\Property] public int $steps,
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $reasons,
    ) {}
}
