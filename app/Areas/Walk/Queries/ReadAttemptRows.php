<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Support\Secrets\RoundValues;
use LucidStep\Core\Record\AttemptRows;
use LucidStep\Core\Record\CanonicalJson;
use LucidStep\Core\Record\Markup;
use LucidStep\Core\Record\Snapshot;

/**
 * Reads what people are shown of an attempt, to be compared with its events.
 *
 * @phpstan-import-type Round from AttemptRows
 */
final class ReadAttemptRows
{
    private const STEP = ['verdict', 'note', 'happened', 'reason', 'waits_on', 'active_ms', 'tries', 'tries_failed'];

    public function __invoke(Attempt $attempt): AttemptRows
    {
        $snapshot = $attempt->snapshot;

        return new AttemptRows(
            [
                'number' => $attempt->number,
                'tester' => $attempt->tester_id,
                'build' => $attempt->build_id,
                'configuration' => $attempt->configuration_id,
                'environment_id' => $attempt->environment_id,
                'environment' => $attempt->environment,
                'snapshot_sha256' => hash('sha256', CanonicalJson::encode($snapshot)),
                'override_reason' => $attempt->override_reason,
                'parallel_reason' => $attempt->parallel_reason,
                'late_of' => $attempt->late_of_id,
                'takeover_word' => $attempt->takeover_word,
                'remark' => $attempt->remark,
                'state' => $attempt->state->value,
                'verdict' => $attempt->verdict?->value,
                'roll_up' => $attempt->roll_up->value,
                'overruled' => $attempt->overruled,
                'from_list' => $attempt->from_list,
                'note' => $attempt->note,
                'active_ms' => $attempt->active_ms,
                'corrected_ms' => $attempt->corrected_ms,
                'started_at' => $attempt->started_at->getTimestamp(),
                'ended_at' => $attempt->finished_at?->getTimestamp(),
            ],
            $this->rounds($attempt),
            $this->evidence($attempt),
            Snapshot::rounds($snapshot),
        );
    }

    /**
     * @return array<int, Round>
     */
    private function rounds(Attempt $attempt): array
    {
        $rounds = [];
        foreach (
            DB::table('rounds')
                ->leftJoin('step_results', 'round_id', '=', 'rounds.id')
                ->where('attempt_id', $attempt->id)
                ->orderBy('rounds.position')
                ->orderBy('step_results.position')
                ->get([
                    'rounds.position as round',
                    'rounds.roll_up',
                    'skipped',
                    'repeats',
                    'data_row',
                    'step_results.position as step',
                    ...array_map(static fn(string $f): string => "step_results.{$f}", self::STEP),
                ])
            as $row
        ) {
            $rounds[$row->round] ??= [
                'skipped' => $row->skipped,
                'repeats' => $row->repeats,
                'roll_up' => $row->roll_up,
                'values' => RoundValues::masked((array) json_decode((string) $row->data_row, true, 16, \JSON_THROW_ON_ERROR)),
                'steps' => [],
            ];
            if (null !== $row->step) {
                $rounds[$row->round]['steps'][$row->step] = array_intersect_key((array) $row, array_flip(self::STEP));
            }
        }

        return $rounds;
    }

    /**
     * @return array<string, array<string, scalar|null>>
     */
    private function evidence(Attempt $attempt): array
    {
        $shown = [];
        foreach (DB::table('evidence')->where('attempt_id', $attempt->id)->get() as $e) {
            $shown[$e->id] = [
                'sha256' => $e->sha256,
                'link' => $e->link,
                'name' => $e->name,
                'caption' => $e->caption,
                'round' => $e->round,
                'step' => $e->step,
                'source' => $e->source,
                'marked' => $e->marked_sha256,
                'markup_sha256' =>
                    null === $e->markup ? null : Markup::hash((array) json_decode($e->markup, true, 64, \JSON_THROW_ON_ERROR)),
                'added_by' => $e->added_by_id,
                'removed' => null !== $e->removed_at,
                'copy_of' => $e->copy_of_id,
            ];
        }

        return $shown;
    }
}
