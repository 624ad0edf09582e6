<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Data;

use OpenApi\Attributes as OA;

/**
 * One way from a requirement to what proves or breaks it.
 */
#[OA\Schema(description: 'One way from a requirement to what proves or breaks it; what is not there is null.')]
final readonly class TraceRow
{
    /**
     * @param  list<TraceLink>  $defects
     * @param  list<TraceLink>  $evidence
     */
    public function __construct(
        #[OA\Property] public ?TraceLink $requirement,
        #[OA\Property] public ?TraceLink $case,
        #[OA\Property(description: 'Key and name of its cycle, the configuration as title')] public ?TraceLink $entry,
        #[OA\Property(description: 'Its number as key, the build as title, the verdict as state')] public ?TraceLink $attempt,
        #[OA\Property(format: 'date-time')] public ?string $finished_at,
        #[OA\Property] public ?int $round,
        #[OA\Property(description: 'One that did not pass, or has a defect or evidence')] public ?int $step,
        #[OA\Property(description: 'Verdict of the step')] public ?string $step_verdict,
        #[OA\Property(type: 'array', items: new OA\Items(ref: TraceLink::class))] public array $defects,
        #[OA\Property(type: 'array', items: new OA\Items(ref: TraceLink::class))] public array $evidence,
    ) {}
}
