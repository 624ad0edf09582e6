<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Resources;

use OpenApi\Attributes as OA;

/**
 * Some of the cases, and where the next begin. The total is counted to 10,000.
 */
#[OA\Schema(description: 'Some of the cases, and where the next begin. The total is counted to 10,000.')]
final readonly class CasePage
{
    /**
     * @param  list<CaseLine>  $items
     * @param  list<GroupCount>  $groups
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(ref: CaseLine::class))]
        public array $items,
        #[OA\Property]
        public ?string $next,
        #[OA\Property]
        public int $total,
        #[OA\Property]
        public bool $more_than_total,
        #[OA\Property(items: new OA\Items(ref: GroupCount::class))]
        public array $groups,
    ) {
    }
}
