<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use OpenApi\Attributes as OA;

/**
 * What is proposed for the time there is, and what is left out.
 */
#[OA\Schema(description: 'What is proposed for the time there is, and what is left out.')]
final readonly class ShortPlan
{
    /**
     * @param  list<ShortLine>  $in
     * @param  list<ShortLine>  $out
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(ref: ShortLine::class))] public array $in,
        #[OA\Property(items: new OA\Items(ref: ShortLine::class))] public array $out,
        #[OA\Property] public int $seconds,
        #[OA\Property] public int $budget_seconds,
        #[OA\Property] public float $risk,
        #[OA\Property] public bool $exact,
    ) {}
}
