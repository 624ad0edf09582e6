<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * Cases that need a look: not walked for long, and likely doubles.
 */
#[OA\Schema(description: 'Cases that need a look: not walked for long, and likely doubles.')]
final readonly class CaseCare
{
    /**
     * @param  list<CaseLine>  $stale
     * @param  list<SimilarCases>  $doubles
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(ref: CaseLine::class))] public array $stale,
        #[OA\Property] public int $stale_days,
        #[OA\Property(items: new OA\Items(ref: SimilarCases::class))] public array $doubles,
    ) {}
}
