<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Http\Resources;

use OpenApi\Attributes as OA;

/**
 * What axes give.
 */
#[OA\Schema(description: 'What axes give.')]
final readonly class AxisCheck
{
    /**
     * @param  list<string>  $sample
     * @param  list<string>  $impossible
     * @param  list<string>  $untested
     */
    public function __construct(
        #[OA\Property] public int $all,
        #[OA\Property] public bool $all_more,
        #[OA\Property] public int $pairs,
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $sample,
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $impossible,
        #[OA\Property(items: new OA\Items(type: 'string'))] public array $untested,
    ) {}
}
