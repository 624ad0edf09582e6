<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use OpenApi\Attributes as OA;

/**
 * Entries of a cycle, a window of them.
 */
#[OA\Schema(description: 'Entries of a cycle, a window of them.')]
final readonly class EntryPage
{
    /**
     * @param  list<EntryLine>  $items
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(ref: EntryLine::class))] public array $items,
        #[OA\Property(description: 'How many fit in all')] public int $total,
        #[OA\Property(description: 'Where the next window begins; null: this is the last')] public ?string $next,
    ) {}
}
