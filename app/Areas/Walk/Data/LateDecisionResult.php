<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Data;

use OpenApi\Attributes as OA;

/**
 * What became of late commands that a lead decided on.
 */
#[OA\Schema(description: 'What became of late commands that a lead decided on.')]
final readonly class LateDecisionResult
{
    /**
     * @param  list<RefusedCommand>  $refused they are set aside
     */
    public function __construct(
        #[OA\Property] public int $applied,
        #[OA\Property(items: new OA\Items(ref: RefusedCommand::class))] public array $refused,
    ) {}
}
