<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Support\Carbon;
use LucidStep\App\Areas\Cycles\Actions\ChangeCycleState;
use LucidStep\App\Areas\Cycles\Queries\Estimates;
use LucidStep\App\Areas\Cycles\Queries\UndecidedEntries;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\LateCommand;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\Round;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Models\User;
use LucidStep\App\Support\DeviceStamp;
use LucidStep\App\Support\Record\CycleChain;
use LucidStep\App\Support\Record\Journal;
use LucidStep\App\Support\Secrets\MaskSecrets;
use LucidStep\Core\Verdict\AttemptState;
use LucidStep\Core\Verdict\Finish;
use LucidStep\Core\Verdict\Policies;
use LucidStep\Core\Verdict\RoundFacts;
use LucidStep\Core\Verdict\Rounds;
use LucidStep\Core\Verdict\Verdict;

/**
 * Ends an attempt: its verdict becomes final and its record is sealed.
 */
final readonly class FinishAttempt
{
    public function __construct(private RecordInAttempt $act, private Journal $journal, private ChangeCycleState $move, private CycleChain $chain)
    {
    }

    /**
     * @param  array{verdict?: ?string, note?: ?string, active_ms?: ?int, corrected_ms?: ?int}  $fields
     *
     * @return ?LateCommand the act, when it arrived too late
     *
     * @throws \LucidStep\Core\Verdict\CannotFinish when there is no final verdict, or no word of why where one is needed
     */
    public function __invoke(Attempt $attempt, User $user, array $fields, DeviceStamp $stamp): ?LateCommand
    {
        $this->chain->hold($attempt->entry_id);
        $fields = [...$fields, ...MaskSecrets::hide($attempt, ['note' => $fields['note'] ?? null])];
        $late = ($this->act)($attempt, $user, 'finished', $fields, $stamp, function (Attempt $attempt) use ($user, $fields, $stamp): void {
            $rounds = Round::query()->where('attempt_id', $attempt->id)->with('results')->orderBy('position')->get();
            $policies = Policies::fromArray(Project::query()->findOrFail($attempt->project_id)->policies);
            $finish = Finish::decide(
                Rounds::verdicts(array_values($rounds->map(static fn (Round $r): RoundFacts => $r->facts())->all())),
                isset($fields['verdict']) ? Verdict::from($fields['verdict']) : null,
                (string) ($fields['note'] ?? ''),
                $policies,
            );
            $attempt->fill([
                'state' => AttemptState::Finished, 'roll_up' => $finish->rollUp, 'verdict' => $finish->verdict, 'overruled' => $finish->overruled,
                'note' => $finish->note, 'has_verdict' => true, 'finished_at' => Carbon::now(), 'corrected_ms' => $fields['corrected_ms'] ?? null,
            ]);
            $attempt->active_ms += max(0, (int) ($fields['active_ms'] ?? 0));
            $this->journal->append($attempt, $user, 'finished', [
                'roll_up' => $finish->rollUp->value, 'verdict' => $finish->verdict->value, 'overruled' => $finish->overruled,
                'note' => $finish->note, 'active_ms' => $attempt->active_ms, 'corrected_ms' => $attempt->corrected_ms,
            ], $stamp);
            $attempt->sealed_sequence = $attempt->sequence;
            $attempt->sealed_head = $attempt->head;
            $this->chain->ofAttempt($attempt, $user, 'attempt_finished', ['verdict' => $finish->verdict->value, 'head' => $attempt->head]);
        });
        if (null === $late) {
            $entry = Entry::query()->findOrFail($attempt->entry_id, ['id', 'case_id', 'cycle_id']);
            TestCase::query()->whereKey($entry->case_id)->toBase()->update(['last_walked_at' => Carbon::now()]);
            Estimates::renew($entry->case_id);
            $this->closeCycle($attempt->project_id, $entry->cycle_id);
        }

        return $late;
    }

    /**
     * Closes the cycle when the policy says so and everything in it is decided.
     */
    private function closeCycle(string $project, string $cycle): void
    {
        if (!Policies::fromArray(Project::query()->findOrFail($project)->policies)->cycleClosesItself) {
            return;
        }
        $cycle = Cycle::query()->lockForUpdate()->findOrFail($cycle);
        if ('released' === $cycle->state && UndecidedEntries::in($cycle)->doesntExist()) {
            $this->move->closeItself($cycle);
        }
    }
}
