<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Areas\Cycles\Queries\Estimates;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\LateCommand;
use LucidStep\App\Models\Round;
use LucidStep\App\Models\StepResult;
use LucidStep\App\Models\User;
use LucidStep\App\Support\DeviceStamp;
use LucidStep\App\Support\Record\CycleChain;
use LucidStep\App\Support\Record\Journal;
use LucidStep\Core\Record\CanonicalJson;
use LucidStep\Core\Record\Chain;
use LucidStep\Core\Verdict\AttemptState;
use LucidStep\Core\Verdict\Verdict;

/**
 * Applies an act that arrived too late, once a lead accepts it. A finished attempt is never touched: what came for it goes
 * into an attempt of its own, of the person who recorded it, with the same steps.
 */
final readonly class ApplyLateCommand
{
    public function __construct(private Journal $journal, private RecordVerdict $verdicts, private SkipOrRepeatRound $rounds, private LateEvidence $evidence, private RefreshEntry $refresh, private CycleChain $chain)
    {
    }

    /**
     * @return Attempt the one that has it now
     */
    public function __invoke(LateCommand $act, User $lead): Attempt
    {
        $source = Attempt::query()->findOrFail($act->attempt_id);
        $this->chain->hold($source->entry_id);
        $entry = Entry::query()->lockForUpdate()->findOrFail($source->entry_id);
        $attempt = $this->attempt($act, $source, $entry, $lead);
        $actor = User::query()->findOrFail($act->actor_id);
        $stamp = new DeviceStamp($act->device_time, $act->counter);
        $attempt->arrivedLate = true;
        $this->apply($attempt, $actor, $act, $stamp);
        $this->journal->append($attempt, $lead, 'late_act_accepted', ['kind' => $act->kind, 'actor' => $act->actor_id, 'why' => $act->why], new DeviceStamp());
        if (AttemptState::Finished === $attempt->state) {
            $attempt->sealed_sequence = $attempt->sequence;
            $attempt->sealed_head = $attempt->head;
        }
        $attempt->save();
        $this->chain->ofAttempt($attempt, $lead, 'late_act_accepted', ['kind' => $act->kind, 'head' => $attempt->head]);
        ($this->refresh)($entry);
        if (AttemptState::Finished === $attempt->state) {
            Estimates::renew($entry->case_id);
        }

        return $attempt;
    }

    /**
     * The attempt that was meant while it is open; else one beside it that takes in what came late.
     */
    private function attempt(LateCommand $act, Attempt $source, Entry $entry, User $lead): Attempt
    {
        if (AttemptState::Open === $source->state) {
            return Attempt::query()->lockForUpdate()->findOrFail($source->id);
        }
        $there = Attempt::query()->lockForUpdate()->where('late_of_id', $source->id)->where('tester_id', $act->actor_id)->where('state', AttemptState::Open)->first();
        if (null !== $there) {
            return $there;
        }
        $id = (string) Str::uuid7();
        $attempt = new Attempt([
            ...$source->only(['project_id', 'entry_id', 'build_id', 'configuration_id', 'environment', 'snapshot']), 'id' => $id, 'number' => $entry->attempts_count + 1, 'tester_id' => $act->actor_id, 'state' => AttemptState::Open, 'has_verdict' => false,
            'roll_up' => Verdict::NotRun, 'verdict' => null, 'overruled' => false, 'note' => '', 'active_ms' => 0, 'started_at' => Carbon::now(), 'sequence' => 0, 'head' => Chain::start($id), 'late_of_id' => $source->id,
            'parallel_reason' => "Arrived after attempt {$source->number} was {$source->state->value}.",
        ]);
        $attempt->save();
        foreach (Round::query()->where('attempt_id', $source->id)->orderBy('position')->get() as $round) {
            $new = (string) Str::uuid7();
            DB::table('rounds')->insert(['id' => $new, 'attempt_id' => $id, 'position' => $round->position, 'data_row' => json_encode((object) $round->data_row, \JSON_THROW_ON_ERROR), 'repeats' => $round->repeats]);
            DB::table('step_results')->insert(array_map(static fn (array $s): array => ['id' => (string) Str::uuid7(), 'round_id' => $new, 'position' => $s['position']], $attempt->snapshot['steps']));
        }
        $this->journal->append($attempt, $lead, 'started', ['number' => $attempt->number, 'late_of' => $source->id, 'snapshot_sha256' => hash('sha256', CanonicalJson::encode($attempt->snapshot))], new DeviceStamp());
        $entry->attempts_count++;

        return $attempt;
    }

    private function apply(Attempt $attempt, User $actor, LateCommand $act, DeviceStamp $stamp): void
    {
        $p = $act->payload;
        $rounds = Round::query()->where('attempt_id', $attempt->id)->with('results')->orderBy('position')->get();
        $round = $rounds->firstWhere('position', $p['round'] ?? null);
        $result = $round?->results->firstWhere('position', $p['step'] ?? null);
        $text = static fn (string $key): string => trim((string) ($p[$key] ?? ''));
        match ($act->kind) {
            'verdict_given' => $result?->fill(['verdict' => Verdict::from($p['verdict']), 'happened' => $text('happened'), 'reason' => $text('reason'), 'waits_on' => $text('waits_on'), 'judged_at' => 'not_run' === $p['verdict'] ? null : Carbon::now()])->save(),
            'note_written' => $result instanceof StepResult ? $result->fill(['note' => $text('note')])->save() : $attempt->remark = $text('note'),
            'tried' => $result?->fill(['tries' => $result->tries + 1, 'tries_failed' => $result->tries_failed + (($p['failed'] ?? false) ? 1 : 0)])->save(),
            'round_skip' => $round?->update(['skipped' => $text('reason')]),
            'round_take_up' => $round?->update(['skipped' => null]),
            // A row that is walked once more already needs no other round.
            'round_repeat' => null === $round || $rounds->contains('repeats', $round->position) ? null : $rounds->push($this->rounds->repeat($attempt, $round, array_values($rounds->all()))),
            'surroundings_said' => $attempt->fill(array_intersect_key($p, ['build_id' => 1, 'configuration_id' => 1, 'environment' => 1])),
            'evidence_added' => $this->evidence->add($attempt, $actor, $p, $stamp),
            'evidence_captioned', 'evidence_moved', 'evidence_marked', 'evidence_removed', 'evidence_redacted' => $this->evidence->change($attempt, $actor, $act->kind, $p),
            default => null,
        };
        $this->verdicts->rollUp($attempt, $rounds->all());
        $attempt->active_ms += max(0, (int) ($p['active_ms'] ?? $p['counted_ms'] ?? 0));
        $event = array_filter(array_intersect_key($p, array_flip(['round', 'step', 'verdict', 'happened', 'reason', 'waits_on', 'note', 'active_ms', 'failed', 'environment', 'counted_ms', 'away_ms', 'name', 'caption', 'evidence', 'from', 'to'])), static fn (mixed $v): bool => null !== $v && '' !== $v);
        $becomes = (array) ($p['becomes'] ?? []);
        $this->journal->append($attempt, $actor, $act->kind, $event, $stamp, array_values(array_filter([$p['sha256'] ?? $becomes['sha256'] ?? $becomes['marked_sha256'] ?? null])));
        if ('finished' === $act->kind) {
            $final = Verdict::tryFrom((string) ($p['verdict'] ?? '')) ?? $attempt->roll_up;
            // What it rests on may have been set aside: then it stays open.
            if (!$final->isFinal()) {
                return;
            }
            $attempt->fill(['state' => AttemptState::Finished, 'verdict' => $final, 'overruled' => $final !== $attempt->roll_up, 'note' => $text('note'), 'has_verdict' => true, 'finished_at' => Carbon::now()]);
        }
    }
}
