<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Data;

use LucidStep\App\Areas\Defects\Data\LinkedDefect;
use LucidStep\App\Areas\Evidence\Data\EvidenceItem;
use LucidStep\App\Areas\Setup\Data\PolicySet;
use OpenApi\Attributes as OA;

/**
 * An attempt step by step: what the walk and the attempt's page show.
 */
#[OA\Schema(description: "An attempt step by step: what the walk and the attempt's page show.")]
final readonly class AttemptDetail
{
    /**
     * @param  list<StepText>  $steps
     * @param  list<RoundRecord>  $rounds
     * @param  list<EvidenceItem>  $evidence
     * @param  list<LinkedDefect>  $defects
     * @param  list<AttemptSummary>  $earlier
     * @param  list<LateCommandLine>  $late
     * @param  list<RemovalLine>  $removals what was taken out, with its trace
     */
    public function __construct(
        #[OA\Property] public AttemptSummary $attempt,
        #[OA\Property] public string $project_code,
        #[OA\Property] public string $entry_id,
        #[OA\Property] public string $cycle_id,
        #[OA\Property] public string $cycle_key,
        #[OA\Property] public string $cycle_name,
        #[OA\Property] public string $case_key,
        #[OA\Property] public int $case_version,
        #[OA\Property] public string $title,
        #[OA\Property] public string $objective,
        #[OA\Property] public string $preconditions,
        #[OA\Property] public string $postconditions,
        #[OA\Property] public ?int $estimate_seconds,
        #[OA\Property(items: new OA\Items(ref: StepText::class))] public array $steps,
        #[OA\Property(items: new OA\Items(ref: RoundRecord::class))] public array $rounds,
        #[OA\Property(items: new OA\Items(ref: EvidenceItem::class))] public array $evidence,
        #[OA\Property(items: new OA\Items(ref: LinkedDefect::class))] public array $defects,
        #[OA\Property(items: new OA\Items(ref: AttemptSummary::class))] public array $earlier,
        #[OA\Property(items: new OA\Items(ref: LateCommandLine::class))] public array $late,
        #[OA\Property] public ?string $retest_reason,
        #[OA\Property] public PolicySet $policies,
        #[OA\Property(items: new OA\Items(ref: RemovalLine::class))] public array $removals,
        #[
            OA\Property(description: 'Whether values it is walked with are secret: a picture of them is looked over before it is sent'),
        ]
        public bool $secret,
    ) {}
}
