<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * What is wrong with a case, and how a row of its table will read.
 */
#[OA\Schema(description: 'What is wrong with a case, and how a row of its table will read.')]
final readonly class CaseCheck
{
    /**
     * @param  list<ProblemLine>  $problems
     * @param  list<PreviewStep>  $steps
     */
    public function __construct(
        #[OA\Property(items: new OA\Items(ref: ProblemLine::class))] public array $problems,
        #[OA\Property] public int $row,
        #[OA\Property] public int $rows,
        #[OA\Property] public string $row_label,
        #[OA\Property(items: new OA\Items(ref: PreviewStep::class))] public array $steps,
    ) {}
}
