<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * Cases that seem to say the same, each like at least one other of them.
 */
#[OA\Schema(description: 'Cases that seem to say the same, each like at least one other of them.')]
final readonly class SimilarCases
{
    /**
     * @param  list<CaseLine>  $cases by number
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(ref: CaseLine::class))] public array $cases,
        #[OA\Property(description: 'How alike the two of them are that are most alike, 0 to 1.')] public float $score,
    ) {}
}
