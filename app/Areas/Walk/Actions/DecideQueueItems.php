<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Support\Carbon;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\LateCommand;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Problems\Conflict;

/**
 * What a lead decides from the queue: looks that were asked for, corrected times, and acts that arrived too late.
 */
final readonly class DecideQueueItems
{
    public function __construct(private ApplyLateCommand $apply, private PublishChange $announce)
    {
    }

    /**
     * Hands an entry to a lead for a look.
     */
    public function ask(Entry $entry, User $user, string $note): Entry
    {
        $entry->update(['look_asked_at' => Carbon::now(), 'look_by_id' => $user->id, 'look_note' => trim($note)]);
        ($this->announce)($entry->project_id, 'entry', $entry->id, $entry->cycle_id);

        return $entry;
    }

    public function looked(Entry $entry): Entry
    {
        $entry->update(['look_asked_at' => null, 'look_by_id' => null, 'look_note' => '']);
        ($this->announce)($entry->project_id, 'entry', $entry->id, $entry->cycle_id);

        return $entry;
    }

    public function timeSeen(Attempt $attempt): void
    {
        $attempt->update(['time_seen_at' => Carbon::now()]);
        ($this->announce)($attempt->project_id, 'attempt', $attempt->id);
    }

    /**
     * A late act is accepted and applied, or set aside. With `all`, so is everything else of the same person for the same
     * attempt, in the order in which their device did it.
     *
     * @throws Conflict when it was judged already
     */
    public function late(LateCommand $act, User $user, bool $accept, bool $all = false): void
    {
        $acts = $all ? LateCommand::query()->where('attempt_id', $act->attempt_id)->where('actor_id', $act->actor_id)->where('state', 'waiting')->orderBy('counter')->orderBy('device_time')->orderBy('received_at')->get()->all() : [];
        foreach ([] === $acts ? [$act] : $acts as $one) {
            $this->judge($one, $user, $accept);
        }
        ($this->announce)($act->project_id, 'attempt', $act->attempt_id);
    }

    private function judge(LateCommand $act, User $user, bool $accept): LateCommand
    {
        $act = LateCommand::query()->lockForUpdate()->findOrFail($act->id);
        if ('waiting' !== $act->state) {
            throw new Conflict('judged', "This was {$act->state} already.");
        }
        $applied = $accept ? ($this->apply)($act, $user) : null;
        $act->update(['state' => $accept ? 'accepted' : 'set_aside', 'judged_by_id' => $user->id, 'applied_to_id' => $applied?->id]);

        return $act;
    }
}
