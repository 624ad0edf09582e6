<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use OpenApi\Attributes as OA;

/**
 * A cycle with all its entries.
 */
#[OA\Schema(description: 'A cycle with all its entries.')]
final readonly class CycleBoard
{
    /**
     * @param  list<EntryLine>  $entries
     */
    public function __construct(
        #[OA\Property] public CycleSummary $cycle,
        #[OA\Property(items: new OA\Items(ref: EntryLine::class))] public array $entries,
        #[OA\Property] public ?string $next_entry_id,
    ) {}
}
