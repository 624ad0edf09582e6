<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Data;

use OpenApi\Attributes as OA;

/**
 * The record of an attempt: every event, and the heads that stand outside.
 */
#[OA\Schema(description: 'The record of an attempt: every event, and the heads that stand outside.')]
final readonly class AttemptRecord
{
    /**
     * @param  list<RecordEvent>  $events
     */
    public function __construct(
        #[OA\Property] public string $attempt_id,
        #[OA\Property(items: new OA\Items(ref: RecordEvent::class))] public array $events,
        #[OA\Property] public string $head,
        #[OA\Property] public bool $sealed,
        #[OA\Property] public string $cycle_head,
        #[OA\Property] public int $cycle_events,
    ) {}
}
