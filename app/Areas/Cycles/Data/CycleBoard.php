<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use LucidStep\App\Support\Data\Named;
use LucidStep\App\Support\Data\Person;
use OpenApi\Attributes as OA;

/**
 * A cycle as its board shows it, beside the windows of its entries.
 */
#[OA\Schema(description: 'A cycle as its board shows it, beside the windows of its entries.')]
final readonly class CycleBoard
{
    /**
     * @param  list<TrailMark>  $trail
     * @param  list<Walker>  $walkers
     * @param  list<Person>  $assignees
     * @param  list<Named>  $configurations
     */
    public function __construct(
        #[OA\Property] public CycleSummary $cycle,
        #[
            OA\Property(items: new OA\Items(ref: TrailMark::class), description: 'At most 240; long trails are condensed to runs'),
        ]
        public array $trail,
        #[OA\Property(items: new OA\Items(ref: Walker::class))] public array $walkers,
        #[OA\Property(items: new OA\Items(ref: Person::class), description: 'Whose its entries are')] public array $assignees,
        #[OA\Property(items: new OA\Items(ref: Named::class), description: 'What its entries are walked on')] public array $configurations,
        #[OA\Property] public int $held,
        #[OA\Property(description: 'Entries whose case was changed since they were planned')] public int $outdated,
        #[OA\Property(description: 'Time spent on all of them')] public int $active_ms,
        #[OA\Property] public ?string $next_entry_id,
    ) {}
}
