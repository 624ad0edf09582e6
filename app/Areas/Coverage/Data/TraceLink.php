<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Data;

use OpenApi\Attributes as OA;

/**
 * A thing in a trace: what it is called, and what it shows.
 */
#[OA\Schema(description: 'A thing in a trace: what it is called, and what it shows.')]
final readonly class TraceLink
{
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property(description: 'Its key, or what stands for one')] public string $key,
        #[OA\Property] public string $title,
        #[
            OA\Property(description: 'State or verdict; of evidence the media type of its file; null where it has none'),
        ]
        public ?string $state = null,
    ) {}
}
