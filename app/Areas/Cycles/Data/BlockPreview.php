<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use OpenApi\Attributes as OA;

/**
 * Entries that would be stopped, since they need the pass of one that failed or is blocked.
 */
#[OA\Schema(description: 'Entries that would be stopped, since they need the pass of one that failed or is blocked.')]
final readonly class BlockPreview
{
    /**
     * @param  list<RefusedEntry>  $stops
     * @param  list<RefusedEntry>  $stopped
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(ref: RefusedEntry::class))] public array $stops,
        #[OA\Property(items: new OA\Items(ref: RefusedEntry::class))] public array $stopped,
    ) {}
}
