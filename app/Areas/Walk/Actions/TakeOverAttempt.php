<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Auth\Access\AuthorizationException;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Areas\Notices\Actions\NotifyPeople;
use LucidStep\App\Areas\Walk\Exceptions\EntryConflict;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\User;
use LucidStep\App\Support\DeviceStamp;
use LucidStep\App\Support\Problems\Conflict;
use LucidStep\App\Support\Record\CycleChain;
use LucidStep\App\Support\Record\Journal;
use LucidStep\Core\Verdict\AttemptState;

/**
 * Takes an open attempt over from another person, who sees so at once.
 */
final readonly class TakeOverAttempt
{
    public function __construct(
        private Journal $journal,
        private CycleChain $chain,
        private RefreshEntry $refresh,
        private NotifyPeople $notify,
    ) {}

    /**
     * @param  string  $word to the other person, who is told
     *
     * @throws Conflict when the attempt is no longer open
     * @throws AuthorizationException when only its assignee records the entry, and that is somebody else
     */
    public function __invoke(Attempt $attempt, User $user, DeviceStamp $stamp, string $word = ''): Attempt
    {
        $this->chain->hold($attempt->entry_id);
        $entry = Entry::query()->lockForUpdate()->findOrFail($attempt->entry_id);
        $attempt = Attempt::query()->lockForUpdate()->findOrFail($attempt->id);
        if (AttemptState::Open !== $attempt->state) {
            throw EntryConflict::attemptEnded($attempt->state);
        }
        if ($attempt->tester_id !== $user->id) {
            if (Gate::forUser($user)->denies('record', $entry)) {
                throw new AuthorizationException('Only the assignee records this entry.');
            }
            $this->journal->append(
                $attempt,
                $user,
                'taken_over',
                ['from' => $attempt->tester_id, 'to' => $user->id, 'word' => trim($word)],
                $stamp,
            );
            $from = $attempt->tester_id;
            $attempt->takeover_word = trim($word);
            $attempt->tester_id = $user->id;
            $attempt->taken_over_at = Carbon::now();
            $attempt->save();
            $entry->assignee_id = $user->id;
            ($this->refresh)($entry);
            $this->notify->takenOver($attempt, $user, $from, trim($word));
        }

        return $attempt;
    }
}
