<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Walk\Commands\CommandRegistry;
use LucidStep\App\Areas\Walk\Data\LateDecisionResult;
use LucidStep\App\Areas\Walk\Data\RefusedCommand;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\LateCommand;
use LucidStep\App\Models\LateState;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Problems\AlreadyDone;
use LucidStep\App\Support\Problems\Conflict;
use LucidStep\App\Support\Record\CycleChain;
use LucidStep\Core\Verdict\CannotFinish;

/**
 * What a lead decides from the queue: looks that were asked for, corrected times, and acts that arrived too late.
 */
final readonly class DecideQueueItems
{
    public function __construct(
        private ApplyLateCommand $apply,
        private CommandRegistry $commands,
        private CycleChain $chain,
        private PublishChange $announce,
    ) {}

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
     * A late command is accepted and applied, or set aside. With `all`, so is everything else of the same person for the same
     * attempt, in the order in which their device did it. What the rules refuse is set aside with their reason.
     *
     * @throws Conflict when it was decided already
     */
    public function late(LateCommand $late, User $lead, bool $accept, bool $all = false): LateDecisionResult
    {
        $waiting = LateCommand::query()
            ->where('attempt_id', $late->attempt_id)
            ->where('actor_id', $late->actor_id)
            ->where('state', LateState::Waiting);
        $decided = $all ? $waiting->orderBy('counter')->orderBy('device_time')->orderBy('received_at')->get()->all() : [];
        $this->chain->hold((string) Attempt::query()->whereKey($late->attempt_id)->value('entry_id'));
        $refused = [];
        $applied = 0;
        foreach ([] === $decided ? [$late] : $decided as $one) {
            $refusal = $this->decide($one, $lead, $accept);
            if (null !== $refusal) {
                $refused[] = $refusal;
            } elseif ($accept) {
                $applied++;
            }
        }
        ($this->announce)($late->project_id, 'attempt', $late->attempt_id);

        return new LateDecisionResult($applied, $refused);
    }

    /**
     * @return ?RefusedCommand when it was accepted and the rules refused it
     */
    private function decide(LateCommand $late, User $lead, bool $accept): ?RefusedCommand
    {
        $late = LateCommand::query()->lockForUpdate()->findOrFail($late->id);
        if (LateState::Waiting !== $late->state) {
            throw AlreadyDone::decided($late->state->label());
        }
        $applied = $refusal = null;
        if ($accept) {
            try {
                $applied = $this->applied($late, $lead);
            } catch (ValidationException | CannotFinish $e) {
                $refusal = new RefusedCommand($this->commands->restore($late->kind, $late->payload)->description(), $e->getMessage());
            }
        }
        if (null === $applied) {
            $attempt = Attempt::query()->findOrFail($late->attempt_id);
            $this->chain->ofAttempt($attempt, $lead, 'late_act_set_aside', ['late' => $late->id, 'kind' => $late->kind]);
        }
        $late->update([
            'state' => null === $applied ? LateState::SetAside : LateState::Accepted,
            'judged_by_id' => $lead->id,
            'applied_to_id' => $applied?->id,
            'why' => null === $refusal ? $late->why : "{$late->why} {$refusal->why}",
        ]);

        return $refusal;
    }

    /**
     * Within a savepoint: what one command began and could not end is undone alone.
     *
     * @throws \Throwable a ValidationException or CannotFinish when the rules refuse it
     */
    private function applied(LateCommand $late, User $lead): Attempt
    {
        return DB::transaction(fn(): Attempt => ($this->apply)($late, $lead));
    }
}
