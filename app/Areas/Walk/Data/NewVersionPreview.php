<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Data;

use LucidStep\App\Areas\Casebook\Data\CaseComparison;
use OpenApi\Attributes as OA;

/**
 * What taking the case's newest version would do to an entry.
 */
#[OA\Schema(description: 'What taking the case\'s newest version would do to an entry.')]
final readonly class NewVersionPreview
{
    public function __construct(
        #[OA\Property] public int $from_version,
        #[OA\Property] public int $to_version,
        #[OA\Property] public bool $open,
        #[OA\Property] public int $carried,
        #[OA\Property] public int $lost,
        #[OA\Property] public int $added,
        #[OA\Property] public CaseComparison $comparison,
    ) {}
}
