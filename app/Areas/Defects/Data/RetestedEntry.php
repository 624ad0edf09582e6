<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Data;

use LucidStep\Core\Defects\RetestResult;
use OpenApi\Attributes as OA;

/**
 * An entry that a defect was met in, and what walking it with the fix came to.
 */
#[OA\Schema(description: 'An entry that a defect was met in, and what walking it with the fix came to.')]
final readonly class RetestedEntry
{
    public function __construct(
        #[OA\Property] public string $entry_id,
        #[OA\Property] public string $case_key,
        #[OA\Property] public string $title,
        #[OA\Property] public string $cycle_key,
        #[OA\Property(description: 'Whether a retest was asked for since the fix')] public bool $asked,
        #[OA\Property(enum: RetestResult::class)] public string $result,
        #[OA\Property(description: 'The walk that says so; null: none yet')] public ?string $attempt_id,
    ) {}
}
