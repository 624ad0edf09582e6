<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Data;

use OpenApi\Attributes as OA;

/**
 * What a page that is observed is told.
 */
#[OA\Schema(description: 'What a page that is observed is told.')]
final readonly class ObserverAnswer
{
    public function __construct(
        #[OA\Property(description: 'Of the session', enum: ['running', 'paused', 'stopped', 'debriefed'])] public string $state,
        #[OA\Property(description: 'The charter that is explored')] public string $charter,
        #[OA\Property(description: 'Acts that were new')] public int $kept,
    ) {}
}
