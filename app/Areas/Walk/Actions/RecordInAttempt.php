<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Support\Carbon;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\LateCommand;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\DeviceStamp;
use LucidStep\Core\Execution\Arrival;

/**
 * The frame of everything recorded in an attempt: locks it, judges whether the act arrives in time, keeps
 * what does not, and brings the entry up to date.
 */
final readonly class RecordInAttempt
{
    public function __construct(private RefreshEntry $refresh, private Memberships $memberships)
    {
    }

    /**
     * Runs an act on a locked attempt. Must be called within a transaction.
     *
     * @param  array<string, mixed>  $payload what is kept when it arrives too late
     * @param  \Closure(Attempt, Entry): mixed  $do      changes the attempt; it is saved afterwards
     *
     * @return ?LateCommand null when the act was applied; otherwise the act as it waits for a lead
     */
    public function __invoke(Attempt $attempt, User $actor, string $kind, array $payload, DeviceStamp $stamp, \Closure $do): ?LateCommand
    {
        $entry = Entry::query()->lockForUpdate()->findOrFail($attempt->entry_id);
        $locked = Attempt::query()->lockForUpdate()->findOrFail($attempt->id);
        $why = $this->tooLate($locked, $entry, $actor, $stamp);
        if (null !== $why) {
            return LateCommand::query()->create([
                'project_id' => $locked->project_id, 'attempt_id' => $locked->id, 'actor_id' => $actor->id, 'kind' => $kind,
                'payload' => $payload, 'why' => $why, 'device_time' => $stamp->time, 'received_at' => Carbon::now(), 'counter' => $stamp->counter,
            ]);
        }
        $do($locked, $entry);
        $locked->save();
        ($this->refresh)($entry);

        return null;
    }

    /**
     * Why the act cannot be applied any more; null when it can.
     */
    private function tooLate(Attempt $attempt, Entry $entry, User $actor, DeviceStamp $stamp): ?string
    {
        $cycle = Cycle::query()->findOrFail($entry->cycle_id, ['id', 'state', 'closed_at']);
        $arrival = Arrival::judge(
            true === $this->memberships->role($actor, $attempt->project_id)?->records(), $attempt->state, $attempt->tester_id === $actor->id, $stamp->trueTime(Carbon::now())?->toDateTimeImmutable(),
            $attempt->taken_over_at?->toDateTimeImmutable(), $cycle->state, $cycle->closed_at?->toDateTimeImmutable(),
        );
        $attempt->arrivedLate = $arrival->late;

        return $arrival->why;
    }
}
