<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use OpenApi\Attributes as OA;

/**
 * An entry as its planner sees it.
 */
#[OA\Schema(description: 'An entry as its planner sees it.')]
final readonly class PlanLine
{
    /**
     * @param  list<Reason>  $reasons
     * @param  list<PlanCondition>  $needs
     * @param  list<string>  $stopped_by
     */
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public int $position,
        #[OA\Property] public string $case_id,
        #[OA\Property] public string $case_key,
        #[OA\Property] public string $title,
        #[OA\Property] public string $priority,
        #[OA\Property] public ?string $configuration_id,
        #[OA\Property] public ?string $assignee_id,
        #[
            OA\Property(enum: ['pass', 'fail', 'blocked', 'not_applicable', 'not_run', 'in_progress', 'retest']),
        ]
        public string $display_state,
        #[OA\Property] public ?string $previous_verdict,
        #[OA\Property(enum: ['ready', 'held', 'done'])] public string $readiness,
        #[OA\Property(items: new OA\Items(ref: Reason::class))] public array $reasons,
        #[OA\Property] public ?string $walking_id,
        #[OA\Property] public int $seconds,
        #[OA\Property] public int $rounds,
        #[OA\Property] public ?string $not_before,
        #[OA\Property] public ?string $not_after,
        #[OA\Property(items: new OA\Items(ref: PlanCondition::class))] public array $needs,
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $stopped_by,
        #[OA\Property] public bool $outdated,
        #[OA\Property] public ?string $case_gone,
        #[OA\Property] public string $handover,
        #[OA\Property] public bool $walked,
    ) {}
}
