<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Support\Carbon;
use LucidStep\App\Areas\Walk\Commands\AttemptCommand;
use LucidStep\App\Areas\Walk\Commands\CommandContext;
use LucidStep\App\Areas\Walk\Commands\LocksCycle;
use LucidStep\App\Areas\Walk\Exceptions\ArrivedLate;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\LateCommand;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\DeviceStamp;
use LucidStep\App\Support\Record\CycleChain;
use LucidStep\App\Support\Secrets\MaskSecrets;
use LucidStep\App\Support\Transactions;
use LucidStep\Core\Execution\Arrival;
use LucidStep\Core\Verdict\AttemptState;

/**
 * Records a command in an attempt: locks it, judges whether the command arrives in time, keeps what does not, and applies
 * what does.
 */
final readonly class RecordInAttempt
{
    public function __construct(private ApplyCommand $apply, private CycleChain $chain, private Memberships $memberships) {}

    /**
     * What the rules refuse, they throw, by field.
     *
     * @return ?LateCommand null when it was applied; otherwise the command as it waits for a lead
     */
    public function __invoke(Attempt $attempt, User $actor, AttemptCommand $command, DeviceStamp $stamp): ?LateCommand
    {
        // What is known before anything is locked nearly always tells: the cycle is locked before the entry, as plans are changed.
        $held =
            $command instanceof LocksCycle ||
            AttemptState::Open !== $attempt->state ||
            $attempt->tester_id !== $actor->id ||
            true !== $this->memberships->role($actor, $attempt->project_id)?->records();
        try {
            return $this->record($attempt, $actor, $command, $stamp, $held);
        } catch (ArrivedLate) {
            return $this->record($attempt, $actor, $command, $stamp, true);
        }
    }

    /**
     * @param  bool  $held whether the cycle is locked first, as what is written into its chain needs it
     *
     * @throws ArrivedLate when the lock turns out to be needed: nothing was done
     */
    private function record(Attempt $attempt, User $actor, AttemptCommand $command, DeviceStamp $stamp, bool $held): ?LateCommand
    {
        return Transactions::run(function () use ($attempt, $actor, $command, $stamp, $held): ?LateCommand {
            if ($held) {
                $this->chain->hold($attempt->entry_id);
            }
            $entry = Entry::query()->lockForUpdate()->findOrFail($attempt->entry_id);
            $locked = Attempt::query()->lockForUpdate()->findOrFail($attempt->id);
            $mask = MaskSecrets::of($locked);
            $command = null === $mask ? $command : $command->masked($mask);
            $why = $this->tooLate($locked, $entry, $actor, $stamp);
            if (null !== $why) {
                return $held ? $this->keep($locked, $actor, $command, $stamp, $why) : throw new ArrivedLate();
            }
            ($this->apply)($command, new CommandContext($locked, $actor, $stamp), $entry);

            return null;
        });
    }

    /**
     * Keeps what came too late for a lead, and tells the chain of the cycle that it came.
     */
    private function keep(Attempt $locked, User $actor, AttemptCommand $command, DeviceStamp $stamp, string $why): LateCommand
    {
        $late = LateCommand::query()->create([
            'project_id' => $locked->project_id,
            'attempt_id' => $locked->id,
            'actor_id' => $actor->id,
            'kind' => $command->kind(),
            'payload' => $command->payload(),
            'why' => $why,
            'device_time' => $stamp->time,
            'received_at' => Carbon::now(),
            'counter' => $stamp->counter,
        ]);
        $this->chain->ofAttempt($locked, $actor, 'late_act_arrived', ['late' => $late->id, 'kind' => $command->kind()]);

        return $late;
    }

    /**
     * Why the command cannot be applied any more; null when it can.
     */
    private function tooLate(Attempt $attempt, Entry $entry, User $actor, DeviceStamp $stamp): ?string
    {
        $cycle = Cycle::query()->findOrFail($entry->cycle_id, ['id', 'state', 'closed_at']);
        $arrival = Arrival::judge(
            true === $this->memberships->role($actor, $attempt->project_id)?->records(),
            $attempt->state,
            $attempt->tester_id === $actor->id,
            $stamp->trueTime(Carbon::now())?->toDateTimeImmutable(),
            $attempt->taken_over_at?->toDateTimeImmutable(),
            $cycle->state,
            $cycle->closed_at?->toDateTimeImmutable(),
        );
        $attempt->arrivedLate = $arrival->late;

        return $arrival->why;
    }
}
