<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Resources;

use LucidStep\App\Models\Round;
use OpenApi\Attributes as OA;

/**
 * One pass through the steps.
 */
#[OA\Schema(description: 'One pass through the steps.')]
final readonly class RoundRecord
{
    /**
     * @param  list<StepRecord>  $steps
     */
    public function __construct(
        #[OA\Property]
        public int $position,
        #[OA\Property(enum: ['pass', 'fail', 'blocked', 'not_applicable', 'not_run', 'in_progress'])]
        public string $roll_up,
        #[OA\Property(items: new OA\Items(ref: StepRecord::class))]
        public array $steps,
    ) {
    }

    public static function from(Round $round): self
    {
        return new self($round->position, $round->roll_up->value, array_values($round->results->map(StepRecord::from(...))->all()));
    }
}
