<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Data;

use OpenApi\Attributes as OA;

/**
 * A field before and after.
 */
#[OA\Schema(description: 'A field before and after.')]
final readonly class ChangeOfField
{
    public function __construct(
        #[OA\Property] public string $field,
        #[OA\Property] public string $from,
        #[OA\Property] public string $to,
    ) {}
}
