<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use OpenApi\Attributes as OA;

/**
 * An entry without a final verdict at a sign-off.
 */
#[OA\Schema(description: 'An entry without a final verdict at a sign-off.')]
final readonly class UnwalkedEntry
{
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $key,
        #[OA\Property] public string $title,
        #[OA\Property] public string $configuration,
        #[OA\Property] public string $display_state,
    ) {}
}
