<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Data;

use LucidStep\Core\Coverage\CoverageState;
use OpenApi\Attributes as OA;

/**
 * A requirement in its tree, with what it comes to.
 */
#[OA\Schema(description: 'A requirement in its tree, with what it comes to.')]
final readonly class RequirementRow
{
    /**
     * @param  list<StateCount>  $case_counts
     */
    public function __construct(
        #[OA\Property(format: 'uuid')] public string $id,
        #[OA\Property] public string $key,
        #[OA\Property] public string $title,
        #[OA\Property(format: 'uuid')] public ?string $parent_id,
        #[OA\Property(description: 'What another program calls it')] public ?string $external_id,
        #[OA\Property(description: 'The worst over its cases and those below it', enum: CoverageState::class)] public string $state,
        #[OA\Property(description: 'Different cases, linked to it or to one below it')] public int $cases,
        #[OA\Property(description: 'Of these walked to their end in every configuration and row')] public int $walked,
        #[OA\Property(description: 'Linked to it itself')] public int $own_cases,
        #[
            OA\Property(description: 'Of its own cases, linked before its words changed: nobody confirmed them since'),
        ]
        public int $to_look_at,
        #[OA\Property(description: 'Open defects of its own cases')] public int $open_defects,
        #[OA\Property(description: 'Of its own cases, those that change between pass and fail on one build')] public int $unsteady,
        #[
            OA\Property(description: 'What these cases show, worst first', type: 'array', items: new OA\Items(ref: StateCount::class)),
        ]
        public array $case_counts,
    ) {}
}
