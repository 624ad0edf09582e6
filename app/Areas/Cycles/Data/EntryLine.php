<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use LucidStep\App\Areas\Cycles\Queries\Estimates;
use LucidStep\App\Support\Data\Named;
use LucidStep\App\Support\Data\Person;
use LucidStep\App\Support\Time\UtcTime;
use LucidStep\Core\Casebook\CaseState;
use LucidStep\Core\Casebook\Review;
use LucidStep\Core\Execution\Readiness;
use OpenApi\Attributes as OA;

/**
 * An entry of a cycle, as boards and trails show it.
 */
#[OA\Schema(description: 'An entry of a cycle, as boards and trails show it.')]
final readonly class EntryLine
{
    /**
     * @param  list<Reason>  $reasons
     * @param  list<Reason>  $warnings
     * @param  list<PlanCondition>  $needs
     */
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $cycle_id,
        #[OA\Property] public int $position,
        #[OA\Property] public string $case_id,
        #[OA\Property] public string $case_key,
        #[OA\Property] public string $title,
        #[OA\Property] public string $priority,
        #[OA\Property(description: 'Over all its rounds, from earlier walks where there are some')] public int $estimate_seconds,
        #[OA\Property] public int $rounds,
        #[OA\Property] public ?string $not_before,
        #[OA\Property] public ?string $not_after,
        #[OA\Property] public ?Named $configuration,
        #[OA\Property] public ?Person $assignee,
        #[
            OA\Property(enum: ['pass', 'fail', 'blocked', 'not_applicable', 'not_run', 'in_progress', 'retest']),
        ]
        public string $display_state,
        #[OA\Property] public ?string $previous_verdict,
        #[OA\Property(enum: ['ready', 'held', 'done'])] public string $readiness,
        #[OA\Property(items: new OA\Items(ref: Reason::class))] public array $reasons,
        #[OA\Property(items: new OA\Items(ref: Reason::class))] public array $warnings,
        #[OA\Property] public ?string $retest_reason,
        #[OA\Property] public ?Person $retest_by,
        #[OA\Property] public ?Person $walking,
        #[OA\Property] public ?string $open_attempt_id,
        #[OA\Property] public ?string $last_attempt_id,
        #[OA\Property] public int $attempts,
        #[OA\Property] public int $defects,
        #[OA\Property] public int $active_ms,
        #[OA\Property] public ?string $display_state_at,
        #[OA\Property(description: 'Where its case went, `in the bin` or `retired`; the entry stays')] public ?string $case_gone,
        #[OA\Property(description: 'A word from whoever handed it over')] public string $handover,
        #[OA\Property(description: 'Why a lead was asked for a look; empty: nobody was')] public string $look,
        #[OA\Property(description: 'Its case was changed after it was planned')] public bool $outdated,
        #[OA\Property(items: new OA\Items(ref: PlanCondition::class))] public array $needs,
    ) {}

    /**
     * @param  \stdClass  $row of a cycle's entries, with the names of what they point to
     * @param  list<PlanCondition>  $needs
     * @param  array<string, string>  $names of people and configurations, by id
     * @param  bool  $approvedOnly whether only approved cases may enter cycles
     */
    public static function fromRow(
        \stdClass $row,
        Readiness $readiness,
        array $needs,
        array $names,
        bool $approvedOnly,
        Estimates $estimates,
    ): self {
        $retest = 'retest' === $row->display_state;
        $person = static fn(?string $id): ?Person => null === $id ? null : new Person($id, $names[$id] ?? '');

        return new self(
            $row->id,
            $row->cycle_id,
            $row->position,
            $row->case_id,
            $row->key,
            $row->title,
            $row->priority,
            $estimates->entry($row->walk_times, $row->estimate_seconds, $row->steps_count, $row->rounds),
            $row->rounds,
            UtcTime::time($row->not_before),
            UtcTime::time($row->not_after),
            null === $row->configuration_id ? null : new Named($row->configuration_id, $names[$row->configuration_id] ?? ''),
            $person($row->assignee_id),
            $row->display_state,
            $row->previous_verdict,
            $readiness->is,
            array_map(Reason::from(...), $readiness->reasons),
            array_map(Reason::from(...), $readiness->warnings),
            $retest ? $row->retest_reason : null,
            $retest ? $person($row->retest_by_id) : null,
            $person($row->walker_id),
            $row->open_attempt_id,
            $row->last_attempt_id,
            $row->attempts_count,
            $row->defects_count,
            $row->active_ms,
            UtcTime::time($row->display_state_at),
            null !== $row->binned_at ? 'in the bin' : (CaseState::Retired->value === $row->state ? 'retired' : null),
            $row->handover_note,
            null === $row->look_asked_at ? '' : $row->look_note,
            $row->case_version_id !== Review::walked($row->version_id, $row->approved_version_id, $approvedOnly),
            $needs,
        );
    }
}
