<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Data;

use OpenApi\Attributes as OA;

/**
 * What a save made of a case.
 */
#[OA\Schema(description: 'What a save made of a case.')]
final readonly class CaseSaved
{
    /**
     * @param  list<ProblemLine>  $problems
     */
    public function __construct(
        #[OA\Property] public CaseLine $case,
        #[OA\Property] public int $version,
        #[OA\Property] public bool $text_changed,
        #[OA\Property(items: new OA\Items(ref: ProblemLine::class))] public array $problems,
    ) {}
}
