<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Walk\Commands\AttemptCommand;
use LucidStep\App\Areas\Walk\Commands\CommandContext;
use LucidStep\App\Areas\Walk\Commands\LocksCycle;
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
use LucidStep\Core\Verdict\CannotFinish;

/**
 * Records a command in an attempt: locks it, judges whether the command arrives in time, keeps what does not, and applies
 * what does.
 */
final readonly class RecordInAttempt
{
    public function __construct(private ApplyCommand $apply, private CycleChain $chain, private Memberships $memberships) {}

    /**
     * @throws ValidationException when the rules refuse it, by field
     * @throws CannotFinish        when an attempt cannot end this way
     * @return ?LateCommand null when it was applied; otherwise the command as it waits for a lead
     */
    public function __invoke(Attempt $attempt, User $actor, AttemptCommand $command, DeviceStamp $stamp): ?LateCommand
    {
        return Transactions::run(function () use ($attempt, $actor, $command, $stamp): ?LateCommand {
            if ($command instanceof LocksCycle) {
                $this->chain->hold($attempt->entry_id);
            }
            $entry = Entry::query()->lockForUpdate()->findOrFail($attempt->entry_id);
            $locked = Attempt::query()->lockForUpdate()->findOrFail($attempt->id);
            $mask = MaskSecrets::of($locked);
            $command = null === $mask ? $command : $command->masked($mask);
            $why = $this->tooLate($locked, $entry, $actor, $stamp);
            if (null !== $why) {
                return LateCommand::query()->create([
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
            }
            ($this->apply)($command, new CommandContext($locked, $actor, $stamp), $entry);

            return null;
        });
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
