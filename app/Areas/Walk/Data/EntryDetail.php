<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Data;

use LucidStep\App\Areas\Cycles\Data\CycleSummary;
use LucidStep\App\Areas\Cycles\Data\EntryLine;
use LucidStep\App\Areas\Defects\Data\LinkedDefect;
use OpenApi\Attributes as OA;

/**
 * An entry with all its attempts.
 */
#[OA\Schema(description: 'An entry with all its attempts.')]
final readonly class EntryDetail
{
    /**
     * @param  list<AttemptSummary>  $attempts
     * @param  list<LinkedDefect>  $defects
     */
    public function __construct(
        #[OA\Property] public EntryLine $entry,
        #[OA\Property] public CycleSummary $cycle,
        #[OA\Property(items: new OA\Items(ref: AttemptSummary::class))] public array $attempts,
        #[OA\Property(items: new OA\Items(ref: LinkedDefect::class))] public array $defects,
        #[
            OA\Property(description: 'Whether you may record this entry; the project may leave that to its assignee.'),
        ]
        public bool $may_record,
    ) {}
}
