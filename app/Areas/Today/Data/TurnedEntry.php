<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Today\Data;

use LucidStep\App\Support\Data\Person;
use OpenApi\Attributes as OA;

/**
 * An entry that shows something else than before, for the worse or for the better.
 */
#[OA\Schema(description: 'An entry that shows something else than before, for the worse or for the better.')]
final readonly class TurnedEntry
{
    public function __construct(
        #[OA\Property] public string $entry_id,
        #[OA\Property] public string $case_key,
        #[OA\Property] public string $title,
        #[OA\Property(enum: ['pass', 'fail', 'blocked', 'not_applicable', 'not_run'])] public string $from,
        #[OA\Property(enum: ['pass', 'fail', 'blocked', 'not_applicable', 'retest'])] public string $to,
        #[OA\Property] public ?Person $by,
        #[OA\Property] public ?string $configuration,
        #[OA\Property] public string $cycle,
        #[OA\Property] public string $at,
    ) {}
}
