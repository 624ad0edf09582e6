<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Support\Carbon;
use LucidStep\App\Areas\Cycles\Actions\ChangeCycleState;
use LucidStep\App\Areas\Cycles\Queries\Estimates;
use LucidStep\App\Areas\Cycles\Queries\UndecidedEntries;
use LucidStep\App\Areas\Walk\Commands\AttemptCommand;
use LucidStep\App\Areas\Walk\Commands\CommandContext;
use LucidStep\App\Areas\Walk\Commands\CommandHandler;
use LucidStep\App\Areas\Walk\Commands\FinishCommand;
use LucidStep\App\Areas\Walk\Commands\HasFollowUp;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\Round;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Support\Record\Journal;
use LucidStep\Core\Planning\CycleState;
use LucidStep\Core\Verdict\AttemptState;
use LucidStep\Core\Verdict\Finish;
use LucidStep\Core\Verdict\Policies;
use LucidStep\Core\Verdict\RoundFacts;
use LucidStep\Core\Verdict\Rounds;

/**
 * Ends an attempt: its verdict becomes final and its record is sealed.
 *
 * @implements CommandHandler<FinishCommand>
 */
final readonly class FinishAttempt implements CommandHandler, HasFollowUp
{
    public function __construct(private Journal $journal, private ChangeCycleState $move) {}

    public function apply(AttemptCommand $command, CommandContext $context): void
    {
        $attempt = $context->attempt;
        $rounds = Round::query()->where('attempt_id', $attempt->id)->with('results')->orderBy('position')->get();
        $facts = array_values($rounds->map(static fn(Round $r): RoundFacts => $r->facts())->all());
        $policies = Policies::fromArray(Project::query()->findOrFail($attempt->project_id)->policies);
        $finish = Finish::decide(Rounds::verdicts($facts), $command->verdict, $command->note, $policies);
        $attempt->fill([
            'state' => AttemptState::Finished,
            'roll_up' => $finish->rollUp,
            'verdict' => $finish->verdict,
            'overruled' => $finish->overruled,
            'note' => $finish->note,
            'has_verdict' => true,
            'finished_at' => Carbon::now(),
            'corrected_ms' => $command->correctedMs,
        ]);
        $attempt->active_ms += max(0, $command->activeMs);
        $this->journal->append(
            $attempt,
            $context->actor,
            'finished',
            [
                'roll_up' => $finish->rollUp->value,
                'verdict' => $finish->verdict->value,
                'overruled' => $finish->overruled,
                'note' => $finish->note,
                'active_ms' => $attempt->active_ms,
                'corrected_ms' => $attempt->corrected_ms,
                ...$attempt->from_list ? ['from_list' => true] : [],
            ],
            $context->stamp,
        );
    }

    public function followUp(Attempt $attempt, Entry $entry): void
    {
        TestCase::query()
            ->whereKey($entry->case_id)
            ->toBase()
            ->update(['last_walked_at' => Carbon::now()]);
        Estimates::renew($entry->case_id);
        $this->closeCycle($attempt->project_id, $entry->cycle_id);
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
        if (CycleState::Released === $cycle->state && UndecidedEntries::in($cycle)->doesntExist()) {
            $this->move->closeItself($cycle);
        }
    }
}
