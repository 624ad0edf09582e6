<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use LucidStep\App\Support\Data\Named;
use OpenApi\Attributes as OA;

/**
 * How much is picked: cases, the entries they give, and how long those are likely to take.
 */
#[OA\Schema(description: 'How much is picked: cases, the entries they give, and how long those are likely to take.')]
final readonly class SelectionCount
{
    /**
     * @param  list<RefusedSelection>  $refused
     * @param  list<SelectedCase>  $with_tables
     */
    public function __construct(
        #[OA\Property] public int $cases,
        #[OA\Property] public int $entries,
        #[OA\Property] public int $there,
        #[OA\Property] public int $seconds,
        #[OA\Property(description: 'Working days of the dates given')] public int $days,
        #[OA\Property(description: 'What the testers given can do in those days')] public int $capacity_seconds,
        #[OA\Property(items: new OA\Items(ref: RefusedSelection::class))] public array $refused,
        #[OA\Property] public int $refused_count,
        #[OA\Property] public int $usual,
        #[OA\Property(items: new OA\Items(ref: SelectedCase::class))] public array $with_tables,
        #[
            OA\Property(
                type: 'object',
                additionalProperties: new OA\AdditionalProperties(type: 'array', items: new OA\Items(ref: Named::class)),
            ),
        ]
        public object $rows,
    ) {}
}
