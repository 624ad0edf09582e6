<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Data;

use LucidStep\App\Support\Data\Person;
use OpenApi\Attributes as OA;

/**
 * Something that was taken out: its trace.
 */
#[OA\Schema(description: 'Something that was taken out: its trace.')]
final readonly class RemovalLine
{
    public function __construct(
        #[OA\Property(enum: ['file', 'text'])] public string $kind,
        #[OA\Property] public string $subject,
        #[OA\Property] public string $reason,
        #[OA\Property] public ?Person $by,
        #[OA\Property] public string $at,
    ) {}
}
