<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * A filter of the casebook that was kept.
 */
#[OA\Schema(description: 'A filter of the casebook that was kept.')]
final readonly class SavedFilterLine
{
    /**
     * @param  object  $filter of any shape
     */
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $name,
        #[OA\Property] public bool $shared,
        #[OA\Property] public bool $mine,
        #[OA\Property] public string $by,
        #[OA\Property(type: 'object', additionalProperties: true)] public object $filter,
    ) {}
}
