<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use LucidStep\App\Support\Data\Named;
use OpenApi\Attributes as OA;

/**
 * A cycle as its planner sees it, beside the windows of its entries: loads and what does not fit.
 */
#[OA\Schema(description: 'A cycle as its planner sees it, beside the windows of its entries: loads and what does not fit.')]
final readonly class CyclePlan
{
    /**
     * @param  list<PersonLoad>  $loads
     * @param  list<OrderFault>  $faults
     * @param  list<Named>  $configurations
     */
    public function __construct(
        #[OA\Property] public CycleDetail $cycle,
        #[OA\Property(description: 'Entries that are not done')] public int $left,
        #[OA\Property(items: new OA\Items(ref: Named::class), description: 'What its entries are walked on')] public array $configurations,
        #[OA\Property(description: 'Entries whose case was changed since they were planned')] public int $outdated,
        #[OA\Property(items: new OA\Items(ref: PersonLoad::class))] public array $loads,
        #[OA\Property(items: new OA\Items(ref: OrderFault::class), description: 'The first of them')] public array $faults,
        #[OA\Property] public int $faults_count,
        #[OA\Property] public int $seconds_left,
        #[OA\Property] public int $seconds_unassigned,
        #[OA\Property] public int $capacity_seconds,
        #[OA\Property] public ?UndoableAct $last_act,
        #[OA\Property] public bool $may_plan,
    ) {}
}
