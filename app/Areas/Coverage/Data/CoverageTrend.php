<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Data;

use OpenApi\Attributes as OA;

/**
 * What was proven day by day.
 */
#[OA\Schema(description: 'What was proven at the end of each day since something is required; the last one is now.')]
final readonly class CoverageTrend
{
    /**
     * @param  list<CoveragePoint>  $points
     */
    public function __construct(
        #[OA\Property(type: 'array', items: new OA\Items(ref: CoveragePoint::class))] public array $points,
        #[OA\Property(description: 'Days that are not counted yet: asked again, the answer has more of them')] public int $missing,
    ) {}
}
