<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Data;

use LucidStep\App\Areas\Defects\Data\LinkedDefect;
use LucidStep\App\Areas\Evidence\Data\EvidenceItem;
use OpenApi\Attributes as OA;

/**
 * What an earlier attempt recorded of a step that stands here again.
 */
#[OA\Schema(description: 'What an earlier attempt recorded of a step that stands here again.')]
final readonly class EarlierStep
{
    /**
     * @param  list<EvidenceItem>  $evidence
     * @param  list<LinkedDefect>  $defects
     */
    public function __construct(
        #[OA\Property(description: 'The round here')] public int $round,
        #[OA\Property(description: 'The step here')] public int $step,
        #[OA\Property(description: 'The round then')] public int $was_round,
        #[OA\Property] public bool $same_values,
        #[OA\Property(description: 'Whether it said the same then')] public bool $same_text,
        #[OA\Property] public StepRecord $record,
        #[OA\Property(items: new OA\Items(ref: EvidenceItem::class))] public array $evidence,
        #[OA\Property(items: new OA\Items(ref: LinkedDefect::class))] public array $defects,
    ) {}
}
