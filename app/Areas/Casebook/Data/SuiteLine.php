<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * A suite in a list, with its live count and how many of them it gained or lost since they were accepted.
 */
#[OA\Schema(description: 'A suite in a list, with its live count and how many of them it gained or lost since they were accepted.')]
final readonly class SuiteLine
{
    /**
     * @param  object  $filter of any shape
     */
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $name,
        #[OA\Property(enum: ['picked', 'rule', 'requirement'])] public string $kind,
        #[OA\Property(type: 'object', additionalProperties: true)] public object $filter,
        #[OA\Property] public ?string $requirement_id,
        #[OA\Property] public int $cases,
        #[OA\Property] public int $gained,
        #[OA\Property] public int $lost,
        #[OA\Property] public ?string $accepted_at,
        #[OA\Property(description: 'The state of name and rule, to be sent along when they are changed')] public string $seen,
    ) {}
}
