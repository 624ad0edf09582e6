<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Data;

use OpenApi\Attributes as OA;

/**
 * A late command that was accepted and that the rules refused.
 */
#[OA\Schema(description: 'A late command that was accepted and that the rules refused.')]
final readonly class RefusedCommand
{
    public function __construct(
        #[OA\Property(description: 'What it would have done')] public string $command,
        #[OA\Property] public string $why,
    ) {}
}
