<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Data;

use OpenApi\Attributes as OA;

/**
 * Whether a service did what was asked of it.
 */
#[OA\Schema(description: 'Whether a service did what was asked of it.')]
final readonly class ServiceTest
{
    public function __construct(
        #[OA\Property] public bool $works,
        #[OA\Property(description: 'What was tried, or what went wrong')] public string $words,
        #[OA\Property(description: 'How long it took, in ms')] public int $took_ms,
    ) {}
}
