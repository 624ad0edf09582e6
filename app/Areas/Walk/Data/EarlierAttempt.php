<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Data;

use OpenApi\Attributes as OA;

/**
 * An earlier attempt laid beside a newer one, step by step.
 */
#[OA\Schema(description: 'An earlier attempt laid beside a newer one, step by step.')]
final readonly class EarlierAttempt
{
    /**
     * @param  list<EarlierStep>  $steps those of which it recorded something, in the order of the newer attempt
     */
    public function __construct(
        #[OA\Property] public AttemptSummary $attempt,
        #[OA\Property(items: new OA\Items(ref: EarlierStep::class))] public array $steps,
        #[OA\Property(description: 'Steps on which it recorded something, and which stand here no more')] public int $gone,
    ) {}
}
