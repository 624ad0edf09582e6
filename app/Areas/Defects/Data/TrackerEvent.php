<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Data;

use OpenApi\Attributes as OA;

/**
 * What a tracker tells of a change: in the fields that the mapping says, as here where nothing was said otherwise.
 */
#[OA\Schema(description: 'What a tracker tells of a change, in the fields that the mapping says.')]
final readonly class TrackerEvent
{
    public function __construct(
        #[OA\Property] public string $key,
        #[OA\Property(description: 'As the tracker calls it')] public string $state,
        #[OA\Property(description: 'A mail address or a name')] public string $assignee,
        #[OA\Property(description: 'When, in ISO 8601')] public string $changed,
    ) {}
}
