<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Data;

use LucidStep\App\Support\Data\Named;
use LucidStep\App\Support\Data\Person;
use LucidStep\Core\Sessions\CharterState;
use OpenApi\Attributes as OA;

/**
 * A charter as a list shows it.
 */
#[OA\Schema(description: 'A charter as a list shows it.')]
final readonly class CharterLine
{
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $key,
        #[OA\Property(description: 'What to explore')] public string $title,
        #[OA\Property] public string $with_what,
        #[OA\Property] public string $to_find,
        #[
            OA\Property(description: 'What it explores of the project: `folder`, `requirement`, `label`; empty: nothing in particular'),
        ]
        public string $area_kind,
        #[OA\Property(description: 'Its id, of a label its name')] public string $area_id,
        #[OA\Property(description: 'What it is called')] public string $area,
        #[OA\Property] public string $risk,
        #[OA\Property(enum: ['critical', 'high', 'medium', 'low'])] public string $priority,
        #[OA\Property] public int $box_minutes,
        #[OA\Property] public ?Named $build,
        #[OA\Property] public ?Named $configuration,
        #[OA\Property] public ?Named $milestone,
        #[OA\Property] public ?Person $assignee,
        #[OA\Property] public Person $author,
        #[OA\Property(description: 'A day before which nobody is to run it')] public ?string $not_before,
        #[OA\Property(enum: CharterState::class)] public string $state,
        #[OA\Property] public int $version,
        #[OA\Property] public string $created_at,
        #[OA\Property(description: 'Its last session')] public ?SessionName $last,
    ) {}
}
