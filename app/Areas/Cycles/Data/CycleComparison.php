<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use OpenApi\Attributes as OA;

/**
 * Two cycles beside each other.
 */
#[OA\Schema(description: 'Two cycles beside each other.')]
final readonly class CycleComparison
{
    /**
     * @param  list<ComparedEntry>  $entries
     */
    public function __construct(
        #[OA\Property] public CycleSummary $before,
        #[OA\Property] public CycleSummary $after,
        #[OA\Property(type: 'object', additionalProperties: new OA\AdditionalProperties(type: 'integer'))] public object $counts,
        #[OA\Property(items: new OA\Items(ref: ComparedEntry::class))] public array $entries,
    ) {}
}
