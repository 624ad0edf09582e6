<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Data;

use LucidStep\App\Support\Data\ChangeOfField;
use LucidStep\App\Support\Data\Person;
use OpenApi\Attributes as OA;

/**
 * What became of a requirement.
 */
#[OA\Schema(description: 'What became of a requirement.')]
final readonly class RequirementChange
{
    /**
     * @param  list<ChangeOfField>  $changes
     */
    public function __construct(
        #[OA\Property(enum: ['made', 'changed', 'moved', 'dropped', 'restored', 'confirmed', 'linked', 'parted'])] public string $kind,
        #[OA\Property(format: 'date-time')] public string $at,
        #[OA\Property(description: 'Of a link the case says who')] public ?Person $by,
        #[OA\Property(description: 'Brought by an import')] public bool $imported,
        #[OA\Property(type: 'array', items: new OA\Items(ref: ChangeOfField::class))] public array $changes,
    ) {}
}
