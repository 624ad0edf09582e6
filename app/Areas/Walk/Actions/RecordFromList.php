<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Auth\Access\AuthorizationException;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Cycles\Actions\BlockDependents;
use LucidStep\App\Areas\Cycles\Data\RefusedEntry;
use LucidStep\App\Areas\Cycles\Exceptions\CycleConflict;
use LucidStep\App\Areas\Setup\Queries\ReasonNames;
use LucidStep\App\Areas\Walk\Commands\FinishCommand;
use LucidStep\App\Areas\Walk\Data\ListVerdictResult;
use LucidStep\App\Areas\Walk\Exceptions\EntryConflict;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\User;
use LucidStep\App\Support\DeviceStamp;
use LucidStep\App\Support\Problems\Conflict;
use LucidStep\Core\Access\Role;
use LucidStep\Core\Planning\CycleState;
use LucidStep\Core\Text\Why;
use LucidStep\Core\Verdict\Verdict;

/**
 * Gives one or many entries their verdict straight from the cycle's list: an attempt each, marked so, whose steps stay not
 * run. The rules of starting and finishing hold; what they refuse is named and left.
 */
final readonly class RecordFromList
{
    /** At most so many entries are judged at once. */
    public const MOST = 500;

    public function __construct(private StartAttempt $start, private RecordInAttempt $record, private BlockDependents $stops) {}

    /**
     * @param  list<string>  $ids
     * @param  array{verdict: string, note: string, reason?: ?string, waits_on?: ?string, stops?: bool}  $said `stops`: what needs their
     *     pass is stopped
     *
     * @throws Conflict            when the cycle is not released
     * @throws ValidationException when a word of why is missing, or none of the entries is there
     */
    public function __invoke(Cycle $cycle, User $user, Role $role, array $ids, array $said, DeviceStamp $stamp): ListVerdictResult
    {
        // Plans are changed in this order too: the cycle, then its entries.
        $cycle = Cycle::query()->lockForUpdate()->findOrFail($cycle->id);
        if (CycleState::Released !== $cycle->state) {
            throw CycleConflict::notReleased($cycle->state, '; its entries cannot be judged');
        }
        $note = trim($said['note']);
        if (!Why::isGiven($note)) {
            throw ValidationException::withMessages(['note' => 'Say in a few words why: nobody walks the steps.']);
        }
        $reason = ReasonNames::listed($cycle->project_id, Verdict::from($said['verdict']), trim((string) ($said['reason'] ?? '')));
        $waits = trim((string) ($said['waits_on'] ?? ''));
        $note .= '' === $reason ? '' : " ({$reason}" . ('' === $waits ? '' : ", waits on {$waits}") . ')';
        $entries = Entry::query()
            ->where('cycle_id', $cycle->id)
            ->whereIn('id', $ids)
            ->with('case', 'configuration', 'openAttempt.tester')
            ->orderBy('position')
            ->get();
        if ($entries->isEmpty()) {
            throw ValidationException::withMessages(['ids' => 'None of these entries is in the cycle any more.']);
        }
        $done = $refused = [];
        foreach ($entries as $entry) {
            try {
                $attempt = $this->begin($entry, $user, $role, $stamp, $note);
            } catch (Conflict | AuthorizationException $refusal) {
                $refused[] = new RefusedEntry($entry->id, $entry->case->key, $entry->case->title, self::words($refusal));

                continue;
            }
            $attempt->from_list = true;
            $attempt->save();
            ($this->record)($attempt, $user, new FinishCommand(Verdict::from($said['verdict']), $note), $stamp);
            $done[] = $entry->id;
        }

        $stops = ($said['stops'] ?? false) && \in_array($said['verdict'], ['fail', 'blocked'], true);

        return new ListVerdictResult($done, $refused, $stops ? \count($this->stops->applyAll($cycle, $done, $user)) : 0);
    }

    /**
     * Why an entry was left, short enough for a list.
     */
    private static function words(Conflict|AuthorizationException $refusal): string
    {
        return match (true) {
            $refusal instanceof AuthorizationException => 'Only its assignee records it.',
            'held' === $refusal->problem => 'It is held.',
            'walked-by-another' === $refusal->problem => "{$refusal->facts['tester']} is walking it.",
            default => $refusal->getMessage(),
        };
    }

    /**
     * @throws Conflict|AuthorizationException by the rules of starting an attempt
     */
    private function begin(Entry $entry, User $user, Role $role, DeviceStamp $stamp, string $note): Attempt
    {
        // Starting would go on with an attempt of one's own.
        if (null !== $entry->open_attempt_id && $entry->openAttempt?->tester_id === $user->id) {
            throw EntryConflict::walkedByYou();
        }

        return ($this->start)($entry, $user, $role, $stamp, false, $note);
    }
}
