<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use OpenApi\Attributes as OA;

/**
 * A picked case that is bound to a data table.
 */
#[OA\Schema(description: 'A picked case that is bound to a data table.')]
final readonly class SelectedCase
{
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $key,
        #[OA\Property] public string $title,
        #[OA\Property] public string $table_id,
    ) {}
}
