<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use LucidStep\App\Areas\Cycles\Queries\Estimates;
use LucidStep\App\Models\Entry;
use LucidStep\App\Support\Data\Named;
use LucidStep\App\Support\Data\Person;
use LucidStep\App\Support\Time\UtcTime;
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
     */
    public function __construct(
        #[OA\Property] public string $id,
        #[OA\Property] public string $cycle_id,
        #[OA\Property] public int $position,
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
        #[OA\Property(description: 'The case is in the bin; the entry stays')] public bool $case_binned,
        #[OA\Property(description: 'A word from whoever handed it over')] public string $handover,
        #[OA\Property(description: 'Why a lead was asked for a look; empty: nobody was')] public string $look,
        #[OA\Property(description: 'Its case was changed after it was planned')] public bool $outdated,
    ) {}

    /**
     * @param  Entry  $entry with case, configuration, assignee, retestBy and openAttempt.tester loaded
     * @param  bool  $approvedOnly whether only approved cases may enter cycles
     */
    public static function from(Entry $entry, Readiness $readiness, bool $approvedOnly, Estimates $estimates): self
    {
        $retest = 'retest' === $entry->display_state;

        return new self(
            $entry->id,
            $entry->cycle_id,
            $entry->position,
            $entry->case->key,
            $entry->case->title,
            $entry->case->priority,
            $estimates->entry(
                (string) $entry->case->getRawOriginal('walk_times'),
                $entry->case->estimate_seconds,
                $entry->case->steps_count,
                $entry->rounds,
            ),
            $entry->rounds,
            $entry->not_before?->toIso8601ZuluString(),
            $entry->not_after?->toIso8601ZuluString(),
            Named::orNull($entry->configuration),
            Person::orNull($entry->assignee),
            $entry->display_state,
            $entry->previous_verdict,
            $readiness->is,
            array_map(Reason::from(...), $readiness->reasons),
            array_map(Reason::from(...), $readiness->warnings),
            $retest ? $entry->retest_reason : null,
            $retest ? Person::orNull($entry->retestBy) : null,
            Person::orNull($entry->openAttempt?->tester),
            $entry->open_attempt_id,
            $entry->last_attempt_id,
            $entry->attempts_count,
            $entry->defects_count,
            $entry->active_ms,
            $entry->display_state_at?->toIso8601ZuluString(),
            null !== $entry->case->binned_at,
            $entry->handover_note,
            null === $entry->look_asked_at ? '' : $entry->look_note,
            $entry->case_version_id !== Review::walked((string) $entry->case->version_id, $entry->case->approved_version_id, $approvedOnly),
        );
    }

    /**
     * @param  \stdClass  $row of a cycle's entries, with the names of what they point to
     * @param  bool  $approvedOnly whether only approved cases may enter cycles
     */
    public static function fromRow(\stdClass $row, Readiness $readiness, bool $approvedOnly, Estimates $estimates): self
    {
        $retest = 'retest' === $row->display_state;
        $person = static fn(?string $id, ?string $name): ?Person => null === $id ? null : new Person($id, (string) $name);

        return new self(
            $row->id,
            $row->cycle_id,
            $row->position,
            $row->key,
            $row->title,
            $row->priority,
            $estimates->entry($row->walk_times, $row->estimate_seconds, $row->steps_count, $row->rounds),
            $row->rounds,
            UtcTime::time($row->not_before),
            UtcTime::time($row->not_after),
            null === $row->configuration_id ? null : new Named($row->configuration_id, $row->configuration),
            $person($row->assignee_id, $row->assignee),
            $row->display_state,
            $row->previous_verdict,
            $readiness->is,
            array_map(Reason::from(...), $readiness->reasons),
            array_map(Reason::from(...), $readiness->warnings),
            $retest ? $row->retest_reason : null,
            $retest ? $person($row->retest_by_id, $row->retester) : null,
            $person($row->walker_id, $row->walker),
            $row->open_attempt_id,
            $row->last_attempt_id,
            $row->attempts_count,
            $row->defects_count,
            $row->active_ms,
            UtcTime::time($row->display_state_at),
            null !== $row->binned_at,
            $row->handover_note,
            null === $row->look_asked_at ? '' : $row->look_note,
            $row->case_version_id !== Review::walked($row->version_id, $row->approved_version_id, $approvedOnly),
        );
    }
}
