<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * How a case went once.
 */
#[OA\Schema(description: 'How a case went once.')]
final readonly class CaseResult
{
    public function __construct(
        #[OA\Property] public ?string $attempt_id,
        #[OA\Property] public string $entry_id,
        #[OA\Property] public string $display_state,
        #[OA\Property] public string $cycle_key,
        #[OA\Property] public string $cycle_name,
        #[OA\Property] public ?string $configuration,
        #[OA\Property] public ?string $build,
        #[OA\Property] public ?string $tester,
        #[OA\Property] public ?string $at,
        #[OA\Property] public string $note,
    ) {}
}
