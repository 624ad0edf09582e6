<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * A step before and after.
 */
#[OA\Schema(description: 'A step before and after.')]
final readonly class StepDiff
{
    /**
     * @param  list<FieldDiff>  $fields
     */
    public function __construct(
        #[OA\Property(enum: ['same', 'changed', 'moved', 'added', 'removed'])] public string $is,
        #[OA\Property] public ?int $from,
        #[OA\Property] public ?int $to,
        #[OA\Property(items: new OA\Items(ref: FieldDiff::class))] public array $fields,
        #[OA\Property] public bool $files_changed,
        #[OA\Property] public ?string $routine,
    ) {}
}
