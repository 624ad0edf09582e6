<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Data;

use OpenApi\Attributes as OA;

/**
 * What was otherwise where a step passed.
 */
#[OA\Schema(description: 'What was otherwise where a step passed.')]
final readonly class BesideDifference
{
    public function __construct(
        #[OA\Property(description: 'What it is of: build, a column of the data, a step …')] public string $what,
        #[OA\Property(description: 'Where it passed')] public string $passed,
        #[OA\Property(description: 'Where it failed')] public string $failed,
    ) {}
}
