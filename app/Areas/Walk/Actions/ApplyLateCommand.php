<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Str;
use LucidStep\App\Areas\Walk\Commands\CommandContext;
use LucidStep\App\Areas\Walk\Commands\CommandRegistry;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\LateCommand;
use LucidStep\App\Models\Round;
use LucidStep\App\Models\User;
use LucidStep\App\Support\DeviceStamp;
use LucidStep\App\Support\Record\CycleChain;
use LucidStep\App\Support\Record\Journal;
use LucidStep\App\Support\Secrets\RoundValues;
use LucidStep\Core\Record\Chain;
use LucidStep\Core\Verdict\AttemptState;
use LucidStep\Core\Verdict\Verdict;

/**
 * Applies an act that arrived too late, once a lead accepts it. A finished attempt is never touched: what came for it goes
 * into an attempt of its own, of the person who recorded it, with the same steps.
 */
final readonly class ApplyLateCommand
{
    public function __construct(
        private CommandRegistry $commands,
        private ApplyCommand $apply,
        private Journal $journal,
        private CycleChain $chain,
    ) {}

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
        $command = $this->commands->restore($act->kind, $act->payload);
        ($this->apply)($command, new CommandContext($attempt, $actor, $stamp), $entry, function (Attempt $attempt) use ($act, $lead): void {
            $why = ['kind' => $act->kind, 'actor' => $act->actor_id, 'why' => $act->why];
            $this->journal->append($attempt, $lead, 'late_act_accepted', $why, new DeviceStamp());
        });

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
        $there = Attempt::query()
            ->lockForUpdate()
            ->where('late_of_id', $source->id)
            ->where('tester_id', $act->actor_id)
            ->where('state', AttemptState::Open)
            ->first();
        if (null !== $there) {
            return $there;
        }
        $id = (string) Str::uuid7();
        $rounds = array_values(Round::query()->where('attempt_id', $source->id)->orderBy('position')->get()->all());
        $columns = array_values(array_filter((array) ($source->snapshot['columns'] ?? []), is_string(...)));
        $attempt = new Attempt([
            ...$source->only(['project_id', 'entry_id', 'build_id', 'configuration_id', 'environment_id', 'environment']),
            'snapshot' => [
                ...$source->snapshot,
                'rounds' => array_map(
                    static fn(Round $r): array => ['values' => RoundValues::masked($r->data_row, $columns), 'repeats' => $r->repeats],
                    $rounds,
                ),
            ],
            'id' => $id,
            'number' => $entry->attempts_count + 1,
            'tester_id' => $act->actor_id,
            'state' => AttemptState::Open,
            'has_verdict' => false,
            'roll_up' => Verdict::NotRun,
            'verdict' => null,
            'overruled' => false,
            'note' => '',
            'active_ms' => 0,
            'started_at' => Carbon::now(),
            'sequence' => 0,
            'head' => Chain::start($id),
            'late_of_id' => $source->id,
            'parallel_reason' => "Arrived after attempt {$source->number} was {$source->state->value}.",
        ]);
        $attempt->save();
        InsertRounds::into(
            $attempt,
            array_map(static fn(Round $r): array => ['data_row' => $r->data_row, 'repeats' => $r->repeats], $rounds),
        );
        $this->journal->append($attempt, $lead, 'started', StartAttempt::said($attempt), new DeviceStamp());
        $entry->attempts_count++;

        return $attempt;
    }
}
