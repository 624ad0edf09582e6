<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Data;

use LucidStep\App\Models\Defect;
use OpenApi\Attributes as OA;

/**
 * Another defect, as it is named at one.
 */
#[OA\Schema(description: 'Another defect, as it is named at one.')]
final readonly class DefectName
{
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $key,
        #[OA\Property] public string $title,
        #[OA\Property] public string $state,
    ) {}

    public static function of(Defect $d): self
    {
        return new self($d->id, $d->key, $d->title, $d->state->value);
    }
}
