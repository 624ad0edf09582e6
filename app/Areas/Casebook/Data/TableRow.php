<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * A row of a data table. A secret cell is null: it can be replaced, not read back.
 */
#[OA\Schema(description: 'A row of a data table. A secret cell is null: it can be replaced, not read back.')]
final readonly class TableRow
{
    /**
     * @param  list<?string>  $cells
     */
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property(items: new OA\Items(type: 'string', nullable: true))] public array $cells,
    ) {}
}
