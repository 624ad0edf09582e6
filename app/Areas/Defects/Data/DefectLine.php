<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Data;

use LucidStep\App\Models\Defect;
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
        #[OA\Property] public string $created_at,
        #[OA\Property] public string $updated_at,
    ) {}

    /**
     * @param  Defect  $d with reporter, assignee, case and build loaded
     */
    public static function from(Defect $d): self
    {
        return new self(
            $d->id,
            $d->key,
            $d->title,
            $d->state->value,
            $d->state->isClosed(),
            $d->severity,
            $d->priority,
            Person::from($d->reporter),
            Person::orNull($d->assignee),
            $d->case?->key,
            Named::orNull($d->build),
            $d->created_at->toIso8601ZuluString(),
            $d->updated_at->toIso8601ZuluString(),
        );
    }
}
