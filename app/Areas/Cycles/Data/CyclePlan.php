<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use OpenApi\Attributes as OA;

/**
 * A cycle as its planner sees it: entries in order, conditions, loads and what does not fit.
 */
#[OA\Schema(description: 'A cycle as its planner sees it: entries in order, conditions, loads and what does not fit.')]
final readonly class CyclePlan
{
    /**
     * @param  list<PlanLine>  $entries
     * @param  list<PersonLoad>  $loads
     * @param  list<OrderFault>  $faults
     */
    public function __construct(
        #[OA\Property] public CycleDetail $cycle,
        #[OA\Property(items: new OA\Items(ref: PlanLine::class))] public array $entries,
        #[OA\Property(items: new OA\Items(ref: PersonLoad::class))] public array $loads,
        #[OA\Property(items: new OA\Items(ref: OrderFault::class))] public array $faults,
        #[OA\Property] public int $seconds_left,
        #[OA\Property] public int $seconds_unassigned,
        #[OA\Property] public int $capacity_seconds,
        #[OA\Property] public ?UndoableAct $last_act,
        #[OA\Property] public bool $may_plan,
    ) {}
}
