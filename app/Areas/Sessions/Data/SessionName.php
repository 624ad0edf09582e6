<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Data;

use LucidStep\App\Support\Data\Person;
use OpenApi\Attributes as OA;

/**
 * A session of a charter, in short.
 */
#[OA\Schema(description: 'A session of a charter, in short.')]
final readonly class SessionName
{
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property(description: '1, 2, 3 … of its charter')] public int $number,
        #[OA\Property(enum: ['running', 'paused', 'stopped', 'debriefed'])] public string $state,
        #[OA\Property] public Person $tester,
        #[OA\Property] public string $started_at,
        #[OA\Property] public int $issues,
    ) {}
}
