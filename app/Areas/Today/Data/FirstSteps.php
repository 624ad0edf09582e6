<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Today\Data;

use OpenApi\Attributes as OA;

/**
 * How far a project has come that has not released a cycle yet.
 */
#[OA\Schema(description: 'How far a project has come that has not released a cycle yet.')]
final readonly class FirstSteps
{
    public function __construct(
        #[OA\Property] public int $cases,
        #[OA\Property] public int $builds,
        #[OA\Property] public int $people,
        #[OA\Property(description: 'Invitations that are open')] public int $invited,
        #[OA\Property(description: 'Cycles that are being planned')] public int $cycles,
        #[OA\Property(description: 'Entries in them')] public int $entries,
    ) {}
}
