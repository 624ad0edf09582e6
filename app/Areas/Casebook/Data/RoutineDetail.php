<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * A routine with its steps and where it is used.
 */
#[OA\Schema(description: 'A routine with its steps and where it is used.')]
final readonly class RoutineDetail
{
    /**
     * @param  list<StepEdit>  $steps
     * @param  list<RoutineText>  $inner
     * @param  list<UseLine>  $used_in
     * @param  list<ProblemLine>  $problems
     */
    public function __construct(
        #[OA\Property] public RoutineLine $routine,
        #[OA\Property] public int $version,
        #[OA\Property(items: new OA\Items(ref: StepEdit::class))] public array $steps,
        #[OA\Property(items: new OA\Items(ref: RoutineText::class))] public array $inner,
        #[OA\Property(items: new OA\Items(ref: UseLine::class))] public array $used_in,
        #[OA\Property(items: new OA\Items(ref: ProblemLine::class))] public array $problems,
        #[OA\Property] public bool $may_write,
    ) {}
}
