<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Resources;

use LucidStep\App\Actions\Walk\WalkedText;
use LucidStep\App\Models\Attempt;
use LucidStep\Core\Verdict\AttemptState;
use LucidStep\Core\Verdict\Policies;
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
     * @param  list<LateNote>  $late
     */
    public function __construct(
        #[OA\Property]
        public AttemptSummary $attempt,
        #[OA\Property]
        public string $project_code,
        #[OA\Property]
        public string $entry_id,
        #[OA\Property]
        public string $cycle_id,
        #[OA\Property]
        public string $cycle_key,
        #[OA\Property]
        public string $cycle_name,
        #[OA\Property]
        public string $case_key,
        #[OA\Property]
        public int $case_version,
        #[OA\Property]
        public string $title,
        #[OA\Property]
        public string $objective,
        #[OA\Property]
        public string $preconditions,
        #[OA\Property]
        public string $postconditions,
        #[OA\Property]
        public ?int $estimate_seconds,
        #[OA\Property(items: new OA\Items(ref: StepText::class))]
        public array $steps,
        #[OA\Property(items: new OA\Items(ref: RoundRecord::class))]
        public array $rounds,
        #[OA\Property(items: new OA\Items(ref: EvidenceItem::class))]
        public array $evidence,
        #[OA\Property(items: new OA\Items(ref: LinkedDefect::class))]
        public array $defects,
        #[OA\Property(items: new OA\Items(ref: AttemptSummary::class))]
        public array $earlier,
        #[OA\Property(items: new OA\Items(ref: LateNote::class))]
        public array $late,
        #[OA\Property]
        public ?string $retest_reason,
        #[OA\Property]
        public PolicySet $policies,
    ) {
    }

    /**
     * @param  ?string  $reader who reads it: secret values are told to whoever walks
     */
    public static function from(Attempt $attempt, ?string $reader = null): self
    {
        $attempt->load('tester', 'build', 'configuration', 'entry.cycle.project', 'entry.case', 'rounds.results', 'evidence.file', 'defectLinks.defect', 'lateActs');
        $earlier = Attempt::query()->where('entry_id', $attempt->entry_id)->where('number', '<', $attempt->number)->with('tester', 'build', 'configuration')->orderByDesc('number')->get();
        $entry = $attempt->entry;
        $snapshot = $attempt->snapshot;

        return new self(
            AttemptSummary::from($attempt), $entry->cycle->project->code, $entry->id, $entry->cycle_id, $entry->cycle->key, $entry->cycle->name, (string) $snapshot['key'], (int) $snapshot['version'],
            (string) $snapshot['title'], (string) $snapshot['objective'], (string) $snapshot['preconditions'], (string) $snapshot['postconditions'], $entry->case->estimate_seconds,
            array_map(StepText::fromSnapshot(...), WalkedText::steps($attempt, $attempt->rounds->first(), $reader === $attempt->tester_id && AttemptState::Open === $attempt->state)),
            array_values($attempt->rounds->map(RoundRecord::from(...))->all()),
            array_values($attempt->evidence->whereNull('removed_at')->map(EvidenceItem::from(...))->all()),
            array_values($attempt->defectLinks->map(LinkedDefect::from(...))->all()),
            array_values($earlier->map(AttemptSummary::from(...))->all()),
            array_values($attempt->lateActs->map(LateNote::from(...))->all()),
            null !== $entry->retest_asked_at && $entry->retest_asked_at < $attempt->started_at ? $entry->retest_reason : null,
            PolicySet::from(Policies::fromArray($entry->cycle->project->policies)),
        );
    }
}
