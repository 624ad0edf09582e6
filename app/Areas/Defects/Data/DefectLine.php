<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Data;

use LucidStep\App\Support\Data\Named;
use LucidStep\App\Support\Data\Person;
use LucidStep\Core\Defects\DefectState;
use OpenApi\Attributes as OA;

/**
 * A defect in a list.
 */
#[OA\Schema(description: 'A defect in a list.')]
final readonly class DefectLine
{
    /**
     * @param  list<string>  $labels
     * @param  object  $custom fields that the project added, by id
     */
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $key,
        #[OA\Property] public string $title,
        #[OA\Property(enum: DefectState::class)] public string $state,
        #[OA\Property] public bool $closed,
        #[OA\Property(enum: ['critical', 'major', 'minor', 'trivial'])] public string $severity,
        #[OA\Property(description: '`now`, `soon` or `later`; null: nobody said')] public ?string $priority,
        #[OA\Property] public Person $reporter,
        #[OA\Property] public ?Person $assignee,
        #[OA\Property] public ?string $case_key,
        #[OA\Property] public ?Named $build,
        #[OA\Property] public ?Named $configuration,
        #[OA\Property(description: 'A value of the list; empty: none')] public string $component,
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $labels,
        #[
            OA\Property(
                type: 'object',
                description: 'Fields that the project added, by id',
                additionalProperties: new OA\AdditionalProperties(type: 'string'),
            ),
        ]
        public object $custom,
        #[OA\Property(description: 'For how long it has been open, in ms')] public int $open_ms,
        #[OA\Property] public string $created_at,
        #[OA\Property] public string $updated_at,
    ) {}
}
