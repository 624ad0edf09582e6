<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Data;

use LucidStep\App\Support\Data\Named;
use OpenApi\Attributes as OA;

/**
 * What coverage can be asked of.
 */
#[OA\Schema(description: 'What coverage can be asked of.')]
final readonly class CoverageLenses
{
    /**
     * @param  list<Named>  $releases
     * @param  list<Named>  $builds
     * @param  list<Named>  $configurations
     * @param  list<Named>  $milestones
     */
    public function __construct(
        #[OA\Property(type: 'array', items: new OA\Items(ref: Named::class))] public array $releases,
        #[OA\Property(type: 'array', items: new OA\Items(ref: Named::class))] public array $builds,
        #[OA\Property(type: 'array', items: new OA\Items(ref: Named::class))] public array $configurations,
        #[OA\Property(type: 'array', items: new OA\Items(ref: Named::class))] public array $milestones,
    ) {}
}
