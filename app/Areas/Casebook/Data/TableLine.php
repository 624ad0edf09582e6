<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * A data table in a list.
 */
#[OA\Schema(description: 'A data table in a list.')]
final readonly class TableLine
{
    /**
     * @param  list<ColumnLine>  $columns
     */
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $name,
        #[OA\Property(items: new OA\Items(ref: ColumnLine::class))] public array $columns,
        #[OA\Property] public int $rows,
        #[OA\Property] public int $uses,
        #[OA\Property] public int $revision,
        #[OA\Property] public string $updated_at,
        #[OA\Property] public ?string $binned_at,
    ) {}
}
