<?php

declare(strict_types=1);

namespace LucidStep\App\Actions\Cycles;

use Illuminate\Support\Carbon;
use LucidStep\App\Actions\Walk\Announce;
use LucidStep\App\Actions\Walk\DeviceStamp;
use LucidStep\App\Actions\Walk\Journal;
use LucidStep\App\Exceptions\Conflict;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\LateAct;
use LucidStep\App\Models\User;

/**
 * What a lead decides from the queue: looks that were asked for, corrected times, and acts that arrived too late.
 */
final readonly class JudgeQueue
{
    public function __construct(private Journal $journal, private Announce $announce)
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
     * A late act is accepted into the record of its attempt, or set aside. What was decided stays; an accepted one stands
     * in the attempt's record and asks for a retest by nobody.
     *
     * @throws Conflict when it was judged already
     */
    public function late(LateAct $act, User $user, bool $accept): LateAct
    {
        $act = LateAct::query()->lockForUpdate()->findOrFail($act->id);
        if ('waiting' !== $act->state) {
            throw new Conflict('judged', "This was {$act->state} already.");
        }
        if ($accept) {
            $attempt = Attempt::query()->lockForUpdate()->findOrFail($act->attempt_id);
            $this->journal->append($attempt, $user, 'late_act_accepted', ['kind' => $act->kind, 'actor' => $act->actor_id, 'why' => $act->why, 'act' => json_encode($act->payload, \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES | \JSON_THROW_ON_ERROR)], new DeviceStamp($act->device_time));
            $attempt->save();
        }
        $act->update(['state' => $accept ? 'accepted' : 'set_aside', 'judged_by_id' => $user->id]);
        ($this->announce)($act->project_id, 'attempt', $act->attempt_id);

        return $act;
    }
}
