<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Data;

use LucidStep\App\Models\DefectChange;
use LucidStep\App\Support\Data\Person;
use OpenApi\Attributes as OA;

/**
 * A change of a defect's state.
 */
#[OA\Schema(description: "A change of a defect's state.")]
final readonly class DefectChangeLine
{
    public function __construct(
        #[OA\Property] public Person $actor,
        #[OA\Property] public ?string $from,
        #[OA\Property] public string $to,
        #[OA\Property] public string $note,
        #[OA\Property] public string $at,
    ) {}

    /**
     * @param  DefectChange  $c with its actor loaded
     */
    public static function of(DefectChange $c): self
    {
        return new self(
            Person::from($c->actor),
            $c->from_state?->value,
            $c->to_state->value,
            $c->note,
            $c->created_at->toIso8601ZuluString(),
        );
    }
}
