<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use LucidStep\App\Support\Data\ChangeOfField;
use OpenApi\Attributes as OA;

/**
 * What would change in one case.
 */
#[OA\Schema(description: 'What would change in one case.')]
final readonly class BulkEditSample
{
    /**
     * @param  list<ChangeOfField>  $changes
     */
    public function __construct(
        #[OA\Property] public string $key,
        #[OA\Property] public string $title,
        #[OA\Property(items: new OA\Items(ref: ChangeOfField::class))] public array $changes,
    ) {}
}
