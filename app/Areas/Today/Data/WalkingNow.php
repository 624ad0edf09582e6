<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Today\Data;

use LucidStep\App\Support\Data\Person;
use OpenApi\Attributes as OA;

/**
 * Somebody who walks an entry now.
 */
#[OA\Schema(description: 'Somebody who walks an entry now.')]
final readonly class WalkingNow
{
    public function __construct(
        #[OA\Property] public Person $person,
        #[OA\Property] public string $entry_id,
        #[OA\Property] public string $case_key,
        #[OA\Property] public string $title,
        #[OA\Property] public string $started_at,
        #[OA\Property(description: 'Steps with a verdict, of all rounds')] public int $judged,
        #[OA\Property(description: 'Steps of all rounds')] public int $steps,
    ) {}
}
