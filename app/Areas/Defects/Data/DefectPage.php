<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Data;

use OpenApi\Attributes as OA;

/**
 * Some of the defects, and where the next begin.
 */
#[OA\Schema(description: 'Some of the defects, and where the next begin.')]
final readonly class DefectPage
{
    /**
     * @param  list<DefectLine>  $items
     * @param  list<DefectGroup>  $groups
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(ref: DefectLine::class))] public array $items,
        #[OA\Property(description: 'How many fit in all')] public int $total,
        #[OA\Property(description: 'Where the next page begins; null: this is the last')] public ?string $next,
        #[
            OA\Property(
                description: 'How many are in each group, in their order; with the first page, where groups are asked for',
                items: new OA\Items(ref: DefectGroup::class),
            ),
        ]
        public array $groups = [],
    ) {}
}
