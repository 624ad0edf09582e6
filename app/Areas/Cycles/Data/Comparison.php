<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use OpenApi\Attributes as OA;

/**
 * Two cycles or builds beside each other, the earlier before the later, whichever was asked for first.
 */
#[OA\Schema(description: 'Two cycles or builds beside each other, the earlier before the later, whichever was asked for first.')]
final readonly class Comparison
{
    /**
     * @param  list<ComparedEntry>  $entries
     */
    public function __construct(
        #[OA\Property] public ComparedSide $before,
        #[OA\Property] public ComparedSide $after,
        #[OA\Property(type: 'object', additionalProperties: new OA\AdditionalProperties(type: 'integer'))] public object $counts,
        #[OA\Property(items: new OA\Items(ref: ComparedEntry::class))] public array $entries,
    ) {}
}
