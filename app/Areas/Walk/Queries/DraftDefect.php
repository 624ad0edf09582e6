<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Queries;

use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Evidence;
use LucidStep\App\Models\Round;
use LucidStep\App\Models\StepResult;
use LucidStep\App\Support\Secrets\RoundValues;
use LucidStep\Core\Defects\Draft;
use LucidStep\Core\Defects\Failure;
use LucidStep\Core\Defects\WalkedStep;

/**
 * Drafts a defect from what was walked.
 */
final class DraftDefect
{
    /**
     * @param  ?int  $roundNumber the round, from 1; null for the whole attempt
     * @param  ?int  $stepNumber  the step, from 1; null for a fault without a step
     * @param  ?string  $happened    what happened, when it is not yet recorded
     */
    public function __invoke(Attempt $attempt, ?int $roundNumber, ?int $stepNumber, ?string $happened = null): Draft
    {
        $attempt->loadMissing('build', 'configuration', 'namedEnvironment', 'rounds.results', 'evidence', 'entry.cycle', 'entry.case');
        $round = $attempt->rounds->firstWhere('position', $roundNumber ?? 1);
        $result = null === $stepNumber ? null : $round?->results->firstWhere('position', $stepNumber);
        $recorded = $result instanceof StepResult ? $result->happened : '';

        return Draft::from(
            new Failure(
                (string) $attempt->snapshot['title'],
                RoundValues::mask($round)->text(trim((string) $happened) ?: ($recorded ?: $attempt->note)),
                $attempt->build->name ?? '',
                $attempt->configuration->name ?? '',
                RoundValues::maskedRow($round, array_values(array_filter((array) ($attempt->snapshot['columns'] ?? []), is_string(...)))),
                (string) $attempt->snapshot['preconditions'],
                $round instanceof Round ? $this->steps($attempt, $round) : [],
                $stepNumber,
                array_values(
                    $attempt->evidence
                        ->filter(
                            static fn(Evidence $e): bool => null === $e->removed_at && (null === $stepNumber || $e->step === $stepNumber),
                        )
                        ->map(static fn(Evidence $e): string => '' === $e->caption ? $e->name : "{$e->name}: {$e->caption}")
                        ->all(),
                ),
                [
                    "Case {$attempt->entry->case->key}" . (null === $stepNumber ? '' : ", step {$stepNumber}"),
                    "Cycle {$attempt->entry->cycle->key} {$attempt->entry->cycle->name}, attempt {$attempt->number}",
                ],
                implode(', ', array_filter([$attempt->namedEnvironment->name ?? '', $attempt->environment])),
            ),
        );
    }

    /**
     * @return list<WalkedStep>
     */
    private function steps(Attempt $attempt, Round $round): array
    {
        $results = $round->results->keyBy('position');
        $steps = [];
        [$values, $secrets] = RoundValues::of($round->data_row ?? [], false);
        foreach (AttemptText::steps(array_values((array) $attempt->snapshot['steps']), $values, $secrets) as $step) {
            $result = $results->get($step['position']);
            if ($result instanceof StepResult) {
                $steps[] = new WalkedStep(
                    $step['position'],
                    $step['action'],
                    $step['data'],
                    $step['expected'],
                    $result->verdict,
                    $result->tries,
                    $result->tries_failed,
                    RoundValues::mask($round)->text($result->waits_on),
                );
            }
        }

        return $steps;
    }
}
