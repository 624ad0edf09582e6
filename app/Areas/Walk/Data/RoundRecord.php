<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Data;

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
     * @param  list<RoundValue>  $values of its row
     * @param  list<StepText>  $texts  the steps that read otherwise than in the first round
     */
    public function __construct(
        #[OA\Property] public int $position,
        #[OA\Property(enum: ['pass', 'fail', 'blocked', 'not_applicable', 'not_run', 'in_progress'])] public string $roll_up,
        #[OA\Property(items: new OA\Items(ref: StepRecord::class))] public array $steps,
        #[OA\Property(description: 'Why it was left out', nullable: true)] public ?string $skipped,
        #[OA\Property(description: 'The round whose row it walks once more', nullable: true)] public ?int $repeats,
        #[OA\Property(items: new OA\Items(ref: RoundValue::class))] public array $values,
        #[OA\Property(items: new OA\Items(ref: StepText::class))] public array $texts,
    ) {}

    /**
     * @param  list<StepRecord>  $steps
     * @param  list<RoundValue>  $values
     * @param  list<StepText>  $texts
     */
    public static function from(Round $round, array $steps, array $values, array $texts): self
    {
        return new self($round->position, $round->roll_up->value, $steps, $round->skipped, $round->repeats, $values, $texts);
    }
}
