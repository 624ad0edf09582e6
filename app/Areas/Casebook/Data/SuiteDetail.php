<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * A suite and what changed in it since it was accepted.
 */
#[OA\Schema(description: 'A suite and what changed in it since it was accepted.')]
final readonly class SuiteDetail
{
    /**
     * @param  list<CaseLine>  $gained
     * @param  list<CaseLine>  $lost
     */
    public function __construct(
        #[OA\Property] public SuiteLine $suite,
        #[OA\Property(items: new OA\Items(ref: CaseLine::class))] public array $gained,
        #[OA\Property(items: new OA\Items(ref: CaseLine::class))] public array $lost,
        #[OA\Property] public bool $may_accept,
    ) {}
}
