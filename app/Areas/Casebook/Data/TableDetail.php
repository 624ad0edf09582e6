<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * A data table with its rows and where it is used.
 */
#[OA\Schema(description: 'A data table with its rows and where it is used.')]
final readonly class TableDetail
{
    /**
     * @param  list<TableRow>  $rows
     * @param  list<UseLine>  $used_in
     */
    public function __construct(
        #[OA\Property] public TableLine $table,
        #[OA\Property(items: new OA\Items(ref: TableRow::class))] public array $rows,
        #[OA\Property(items: new OA\Items(ref: UseLine::class))] public array $used_in,
        #[OA\Property] public bool $may_write,
    ) {}
}
