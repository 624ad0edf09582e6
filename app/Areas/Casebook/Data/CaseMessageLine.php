<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use LucidStep\App\Support\Data\Person;
use OpenApi\Attributes as OA;

/**
 * A question or a suggestion about a case.
 */
#[OA\Schema(description: 'A question or a suggestion about a case.')]
final readonly class CaseMessageLine
{
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $case_id,
        #[OA\Property] public string $case_key,
        #[OA\Property] public string $case_title,
        #[OA\Property] public ?int $step,
        #[OA\Property(enum: ['question', 'suggestion'])] public string $kind,
        #[OA\Property] public string $body,
        #[OA\Property] public ?StepEdit $proposal,
        #[OA\Property] public Person $author,
        #[OA\Property(enum: ['open', 'answered', 'taken', 'declined'])] public string $state,
        #[OA\Property] public string $answer,
        #[OA\Property] public ?Person $answered_by,
        #[OA\Property] public string $created_at,
        #[OA\Property] public ?string $answered_at,
        #[OA\Property(description: 'Who took its words out')] public ?Person $removed_by,
        #[OA\Property] public ?string $removed_reason,
    ) {}
}
