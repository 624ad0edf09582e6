<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use OpenApi\Attributes as OA;

/**
 * Who would get what.
 */
#[OA\Schema(description: 'Who would get what.')]
final readonly class AssignmentPlan
{
    /**
     * @param  list<LoadShare>  $people
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(ref: LoadShare::class))] public array $people,
        #[OA\Property(type: 'object', additionalProperties: new OA\AdditionalProperties(type: 'string'))] public object $given,
        #[OA\Property] public int $count,
    ) {}
}
