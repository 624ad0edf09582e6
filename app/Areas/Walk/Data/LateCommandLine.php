<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Data;

use LucidStep\App\Models\LateCommand;
use LucidStep\App\Support\Data\Person;
use OpenApi\Attributes as OA;

/**
 * Something that arrived too late, and what a lead decided of it.
 */
#[OA\Schema(description: 'Something that arrived too late, and what a lead decided of it.')]
final readonly class LateCommandLine
{
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $kind,
        #[OA\Property] public string $why,
        #[OA\Property] public string $received_at,
        #[OA\Property(description: 'What it would do, in words')] public string $words,
        #[OA\Property(enum: ['waiting', 'accepted', 'set_aside'])] public string $state,
        #[OA\Property] public Person $by,
        #[OA\Property] public ?Person $judged_by,
        #[OA\Property(description: 'The attempt that took it in')] public ?string $applied_to_id,
    ) {}

    public static function from(LateCommand $act, string $description): self
    {
        return new self(
            $act->id,
            $act->kind,
            $act->why,
            $act->received_at->toIso8601ZuluString(),
            $description,
            $act->state->value,
            Person::from($act->actor),
            Person::orNull($act->judge),
            $act->applied_to_id,
        );
    }
}
