<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Data;

use OpenApi\Attributes as OA;

/**
 * What waits for a lead, the oldest first.
 */
#[OA\Schema(description: 'What waits for a lead, the oldest first.')]
final readonly class LeadQueue
{
    /**
     * @param  list<QueueItem>  $items
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(ref: QueueItem::class))] public array $items,
        #[OA\Property(type: 'object', additionalProperties: new OA\AdditionalProperties(type: 'integer'))] public object $counts,
    ) {}
}
