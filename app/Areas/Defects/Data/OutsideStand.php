<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Data;

use LucidStep\Core\Defects\Tracker\Standing;
use OpenApi\Attributes as OA;

/**
 * How a defect stands in the tracker outside.
 */
#[OA\Schema(description: 'How a defect stands in the tracker outside.')]
final readonly class OutsideStand
{
    /**
     * @param  list<TrackerCallLine>  $calls
     */
    public function __construct(
        #[
            OA\Property(
                description: '`here`: here only; `waiting` to be sent; `sent`; `refused`: see why; `changed` there since it was sent',
                enum: Standing::class,
            ),
        ]
        public string $state,
        #[OA\Property(description: 'Its name there')] public ?string $key,
        #[OA\Property(description: 'Empty where it has none')] public string $url,
        #[OA\Property(description: 'As the tracker calls it')] public string $outside_state,
        #[OA\Property] public string $outside_assignee,
        #[OA\Property(description: 'When that was known last')] public ?string $seen_at,
        #[
            OA\Property(description: 'What waits or was refused, in its order', items: new OA\Items(ref: TrackerCallLine::class)),
        ]
        public array $calls,
        #[OA\Property(description: 'Every defect goes there by itself')] public bool $sends_each,
    ) {}
}
