<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * How many cases a filter finds. Counted to 10,000, finds of words to 2,000; groups are counted whole.
 */
#[OA\Schema(description: 'How many cases a filter finds. Counted to 10,000, finds of words to 2,000; groups are counted whole.')]
final readonly class CaseCounts
{
    /**
     * @param  list<GroupCount>  $groups
     */
    public function __construct(
        #[OA\Property] public int $total,
        #[OA\Property] public bool $more_than_total,
        #[OA\Property(items: new OA\Items(ref: GroupCount::class))] public array $groups,
    ) {}
}
