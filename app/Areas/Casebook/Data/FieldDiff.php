<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * A text before and after, in pieces.
 */
#[OA\Schema(description: 'A text before and after, in pieces.')]
final readonly class FieldDiff
{
    /**
     * @param  list<DiffPart>  $parts
     */
    public function __construct(
        #[OA\Property] public string $field,
        #[OA\Property(items: new OA\Items(ref: DiffPart::class))] public array $parts,
    ) {}
}
