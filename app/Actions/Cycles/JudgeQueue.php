<?php

declare(strict_types=1);

namespace LucidStep\App\Actions\Cycles;

use Illuminate\Support\Carbon;
use LucidStep\App\Actions\Walk\Announce;
use LucidStep\App\Actions\Walk\ApplyLate;
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
    public function __construct(private ApplyLate $apply, private Announce $announce)
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
    public function late(LateAct $act, User $user, bool $accept, bool $all = false): void
    {
        $acts = $all ? LateAct::query()->where('attempt_id', $act->attempt_id)->where('actor_id', $act->actor_id)->where('state', 'waiting')->orderBy('counter')->orderBy('device_time')->orderBy('received_at')->get()->all() : [];
        foreach ([] === $acts ? [$act] : $acts as $one) {
            $this->judge($one, $user, $accept);
        }
        ($this->announce)($act->project_id, 'attempt', $act->attempt_id);
    }

    private function judge(LateAct $act, User $user, bool $accept): LateAct
    {
        $act = LateAct::query()->lockForUpdate()->findOrFail($act->id);
        if ('waiting' !== $act->state) {
            throw new Conflict('judged', "This was {$act->state} already.");
        }
        $applied = $accept ? ($this->apply)($act, $user) : null;
        $act->update(['state' => $accept ? 'accepted' : 'set_aside', 'judged_by_id' => $user->id, 'applied_to_id' => $applied?->id]);

        return $act;
    }
}
