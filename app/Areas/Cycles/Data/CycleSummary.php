<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use LucidStep\App\Models\Cycle;
use LucidStep\App\Support\Data\Counts;
use LucidStep\App\Support\Data\Named;
use OpenApi\Attributes as OA;

/**
 * A cycle in a list.
 */
#[OA\Schema(description: 'A cycle in a list.')]
final readonly class CycleSummary
{
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $key,
        #[OA\Property] public string $name,
        #[OA\Property] public string $description,
        #[OA\Property(enum: ['draft', 'in_review', 'released', 'closed', 'abandoned'])] public string $state,
        #[OA\Property] public string $starts_on,
        #[OA\Property] public string $ends_on,
        #[OA\Property] public ?Named $build,
        #[OA\Property] public bool $conditions_hold,
        #[OA\Property] public ?string $milestone_id,
        #[OA\Property] public string $phase,
        #[OA\Property] public string $folder,
        #[OA\Property] public Counts $counts,
        #[OA\Property] public int $total,
    ) {}

    /**
     * @param  array<string, int>  $counts entries by what they show
     */
    public static function from(Cycle $cycle, array $counts): self
    {
        return new self(
            $cycle->id,
            $cycle->key,
            $cycle->name,
            $cycle->description,
            $cycle->state->value,
            $cycle->starts_on->toDateString(),
            $cycle->ends_on->toDateString(),
            Named::orNull($cycle->build),
            $cycle->conditions_hold,
            $cycle->milestone_id,
            $cycle->phase,
            $cycle->folder,
            Counts::of($counts),
            array_sum($counts),
        );
    }
}
