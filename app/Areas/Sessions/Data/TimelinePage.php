<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Data;

use OpenApi\Attributes as OA;

/**
 * Lines of a timeline, in order of time.
 */
#[OA\Schema(description: 'Lines of a timeline, in order of time.')]
final readonly class TimelinePage
{
    /**
     * @param  list<TimelineLine>  $items
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(ref: TimelineLine::class))] public array $items,
        #[OA\Property(description: 'Lines that fit, on all pages')] public int $total,
        #[OA\Property(description: 'For the lines after these; null: there are none')] public ?string $next,
    ) {}
}
