<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Data;

use OpenApi\Attributes as OA;

/**
 * Who took words out, when and why.
 */
#[OA\Schema(description: 'Who took words out, when and why.')]
final readonly class TakenOut
{
    public function __construct(
        #[OA\Property(description: 'null: the application itself')] public ?Person $by,
        #[OA\Property(format: 'date-time')] public string $at,
        #[OA\Property] public string $reason,
    ) {}
}
