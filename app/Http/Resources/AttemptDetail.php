<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Resources;

use LucidStep\App\Actions\Walk\WalkedRounds;
use LucidStep\App\Actions\Walk\WalkedText;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\CaseVersion;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\Evidence;
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
     * @param  list<RemovalLine>  $removals what was taken out, with its trace
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
        #[OA\Property(items: new OA\Items(ref: RemovalLine::class))]
        public array $removals,
        #[OA\Property(description: 'Whether values it is walked with are secret: a picture of them is looked over before it is sent')]
        public bool $secret,
    ) {
    }

    /**
     * @param  ?string  $reader who reads it: secret values are told to whoever walks
     */
    public static function from(Attempt $attempt, ?string $reader = null): self
    {
        $attempt->load('tester', 'build', 'configuration', 'entry.cycle.project', 'entry.case', 'rounds', 'evidence.file', 'evidence.marked', 'defectLinks.defect', 'lateActs.actor', 'lateActs.judge');
        $earlier = Attempt::query()->where('entry_id', $attempt->entry_id)->where('number', '<', $attempt->number)->with('tester', 'build', 'configuration')->orderByDesc('number')->get();
        $entry = $attempt->entry;
        $snapshot = $attempt->snapshot;
        [$first, $rounds] = WalkedRounds::of($attempt, $attempt->rounds->all(), $reader === $attempt->tester_id && AttemptState::Open === $attempt->state);
        $removals = RemovalLine::of($attempt->id);
        $gone = array_flip(array_map(static fn (RemovalLine $r): string => $r->subject, $removals));

        return new self(
            AttemptSummary::from($attempt), $entry->cycle->project->code, $entry->id, $entry->cycle_id, $entry->cycle->key, $entry->cycle->name, (string) $snapshot['key'], (int) $snapshot['version'],
            (string) $snapshot['title'], (string) $snapshot['objective'], (string) $snapshot['preconditions'], (string) $snapshot['postconditions'], $entry->case->estimate_seconds,
            $first,
            $rounds,
            array_values($attempt->evidence->whereNull('removed_at')->map(static fn (Evidence $e): EvidenceItem => EvidenceItem::from($e, isset($gone[$e->sha256 ?? ''])))->all()),
            array_values($attempt->defectLinks->map(LinkedDefect::from(...))->all()),
            array_values($earlier->map(AttemptSummary::from(...))->all()),
            array_values($attempt->lateActs->map(LateNote::from(...))->all()),
            null !== $entry->retest_asked_at && $entry->retest_asked_at < $attempt->started_at ? $entry->retest_reason : null,
            PolicySet::from(Policies::fromArray($entry->cycle->project->policies)),
            $removals,
            true === ($snapshot['secret'] ?? false),
        );
    }

    /**
     * An entry as its next attempt would begin, for a device that may have to begin it alone.
     *
     * @param  Entry  $entry   with case, configuration, cycle.build and cycle.project loaded
     * @param  Attempt  $attempt as {@see WalkedRounds::planned()} makes it
     */
    public static function planned(Entry $entry, CaseVersion $version, Attempt $attempt): self
    {
        [$first, $rounds] = WalkedRounds::of($attempt, $attempt->rounds->all(), true);
        $cycle = $entry->cycle;

        return new self(
            new AttemptSummary('', $attempt->number, Person::from($attempt->tester), Named::orNull($cycle->build), Named::orNull($entry->configuration), 'open', 'not_run', null, false, '', 0, null, '', null, '', '', false, null, ''),
            $cycle->project->code, $entry->id, $cycle->id, $cycle->key, $cycle->name, $entry->case->key, $version->number, $version->title, (string) $version->objective, (string) $version->preconditions, (string) $version->postconditions, $entry->case->estimate_seconds,
            $first, $rounds, [], [], [], [], 'retest' === $entry->shows ? $entry->retest_reason : null, PolicySet::from(Policies::fromArray($cycle->project->policies)), [], WalkedText::hasSecrets($version),
        );
    }
}
