<?php

declare(strict_types=1);

namespace LucidStep\App\Actions\Walk;

use Illuminate\Validation\ValidationException;
use LucidStep\App\Actions\Cycles\ReadCycle;
use LucidStep\App\Exceptions\Conflict;
use LucidStep\App\Http\Resources\ListVerdictDone;
use LucidStep\App\Http\Resources\RefusedEntry;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\Role;
use LucidStep\App\Models\User;
use LucidStep\Core\Verdict\Finish;
use LucidStep\Core\Verdict\Policies;

/**
 * Gives one or many entries their verdict straight from the cycle's list: an attempt each, marked so, whose steps stay not
 * run. The rules of starting and finishing hold; what they refuse is named and left.
 */
final readonly class JudgeFromList
{
    /** At most so many entries are judged at once. */
    public const MOST = 500;

    public function __construct(private StartAttempt $start, private FinishAttempt $finish, private ReadCycle $read)
    {
    }

    /**
     * @param  list<string>  $ids
     * @param  array{verdict: string, note: string, reason?: ?string, waits_on?: ?string}  $said
     *
     * @throws Conflict            when the cycle is not released
     * @throws ValidationException when a word of why is missing, or none of the entries is there
     */
    public function __invoke(Cycle $cycle, User $user, Role $role, array $ids, array $said, DeviceStamp $stamp): ListVerdictDone
    {
        // Plans are changed in this order too: the cycle, then its entries.
        $cycle = Cycle::query()->lockForUpdate()->findOrFail($cycle->id);
        if ('released' !== $cycle->state) {
            throw new Conflict('cycle-not-released', "The cycle is {$cycle->state}; its entries cannot be judged.");
        }
        $note = trim($said['note']);
        if (grapheme_strlen($note) < Finish::SHORTEST_WHY) {
            throw ValidationException::withMessages(['note' => 'Say in a few words why: nobody walks the steps.']);
        }
        $reason = trim((string) ($said['reason'] ?? ''));
        $waits = trim((string) ($said['waits_on'] ?? ''));
        $note .= ('' === $reason ? '' : " ({$reason}".('' === $waits ? '' : ", waits on {$waits}").')');
        $entries = Entry::query()->where('cycle_id', $cycle->id)->whereIn('id', $ids)->with('case', 'configuration', 'openAttempt.tester')->orderBy('position')->get();
        if ($entries->isEmpty()) {
            throw ValidationException::withMessages(['ids' => 'None of these entries is in the cycle any more.']);
        }
        $only = Policies::fromArray(Project::query()->findOrFail($cycle->project_id)->policies)->onlyAssigneeRecords;
        $done = $refused = [];
        foreach ($entries as $entry) {
            $why = $this->refusal($cycle, $entry, $user, $role, $only);
            if (null !== $why) {
                $refused[] = new RefusedEntry($entry->id, $entry->case->key, $entry->case->title, $why);

                continue;
            }
            $attempt = ($this->start)($entry, $user, $role, $stamp, false, $note);
            $attempt->from_list = true;
            $attempt->save();
            ($this->finish)($attempt, $user, ['verdict' => $said['verdict'], 'note' => $note, 'active_ms' => 0], $stamp);
            $done[] = $entry->id;
        }

        return new ListVerdictDone($done, $refused);
    }

    private function refusal(Cycle $cycle, Entry $entry, User $user, Role $role, bool $onlyAssignee): ?string
    {
        if (null !== $entry->openAttempt) {
            return $entry->openAttempt->tester_id === $user->id ? 'You are walking it; finish that attempt.' : "{$entry->openAttempt->tester->name} is walking it.";
        }
        if ($onlyAssignee && !$role->leads() && null !== $entry->assignee_id && $entry->assignee_id !== $user->id) {
            return 'Only its assignee records it.';
        }
        // Read again for each: the verdict before it may hold or free this one.
        $readiness = $this->read->view($cycle)->readiness($entry->id);

        return 'held' === $readiness->is ? 'It is held.' : null;
    }
}
