<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Today\Data;

use LucidStep\App\Areas\Cycles\Data\CycleSummary;
use LucidStep\App\Areas\Cycles\Data\EntryLine;
use OpenApi\Attributes as OA;

/**
 * A cycle and the entries in it that are mine, or free to take.
 */
#[OA\Schema(description: 'A cycle and the entries in it that are mine, or free to take.')]
final readonly class TodayCycle
{
    /**
     * @param  list<EntryLine>  $entries
     */
    public function __construct(
        #[OA\Property] public CycleSummary $cycle,
        #[OA\Property(items: new OA\Items(ref: EntryLine::class))] public array $entries,
        #[OA\Property] public ?string $next_entry_id,
        #[OA\Property(description: 'When the first of it closes')] public string $due_at,
    ) {}
}
