<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * What a case usually waits for.
 */
#[OA\Schema(description: 'What a case usually waits for.')]
final readonly class CaseNeed
{
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $key,
        #[OA\Property] public string $title,
        #[OA\Property(enum: ['after', 'only_if_passed'])] public string $kind,
    ) {}
}
