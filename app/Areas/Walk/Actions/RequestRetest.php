<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Support\Carbon;
use LucidStep\App\Areas\Cycles\Exceptions\CycleConflict;
use LucidStep\App\Areas\Notices\Actions\NotifyPeople;
use LucidStep\App\Areas\Walk\Exceptions\EntryConflict;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\User;
use LucidStep\App\Support\DeviceStamp;
use LucidStep\App\Support\Problems\Conflict;
use LucidStep\App\Support\Record\CycleChain;
use LucidStep\App\Support\Record\Journal;
use LucidStep\Core\Planning\CycleState;
use LucidStep\Core\Verdict\AttemptState;

/**
 * Asks for an entry to be walked again, with a reason. The finished attempt stays as it is.
 */
final readonly class RequestRetest
{
    public function __construct(
        private Journal $journal,
        private CycleChain $chain,
        private RefreshEntry $refresh,
        private NotifyPeople $notify,
    ) {}

    /**
     * @throws Conflict when the entry has no finished attempt, one is open, or its cycle is not released
     */
    public function __invoke(Entry $entry, User $user, string $reason): Entry
    {
        $this->chain->hold($entry->id);
        $entry = Entry::query()->lockForUpdate()->with('cycle')->findOrFail($entry->id);
        if (CycleState::Released !== $entry->cycle->state) {
            throw CycleConflict::notReleased($entry->cycle->state);
        }
        $last = Attempt::query()
            ->lockForUpdate()
            ->where('entry_id', $entry->id)
            ->where('state', AttemptState::Finished)
            ->orderByDesc('number')
            ->first();
        if (null === $last) {
            throw EntryConflict::nothingToRetest();
        }
        if (null !== $entry->open_attempt_id) {
            throw EntryConflict::noRetestWhileWalked();
        }
        $entry->fill(['retest_asked_at' => Carbon::now(), 'retest_by_id' => $user->id, 'retest_reason' => trim($reason)]);
        $this->journal->append($last, $user, 'retest_asked', ['reason' => trim($reason)], new DeviceStamp());
        $last->save();
        ($this->refresh)($entry);
        $this->notify->retest($entry, $user, trim($reason));

        return $entry;
    }
}
