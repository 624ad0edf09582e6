<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Data;

use OpenApi\Attributes as OA;

/**
 * A field of a defect before and after a change.
 */
#[OA\Schema(description: 'A field of a defect before and after a change.')]
final readonly class FieldChange
{
    public function __construct(
        #[OA\Property] public string $field,
        #[OA\Property(description: 'null: nothing, or words that the history does not keep')] public ?string $was,
        #[OA\Property] public ?string $is,
    ) {}
}
