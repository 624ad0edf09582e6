<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Setup\Queries\ReasonNames;
use LucidStep\App\Areas\Walk\Commands\AttemptCommand;
use LucidStep\App\Areas\Walk\Commands\CommandContext;
use LucidStep\App\Areas\Walk\Commands\CommandHandler;
use LucidStep\App\Areas\Walk\Commands\VerdictCommand;
use LucidStep\App\Models\Round;
use LucidStep\App\Support\Record\Journal;
use LucidStep\Core\Verdict\RoundFacts;
use LucidStep\Core\Verdict\Verdict;

/**
 * Gives a step its verdict, or takes it back.
 *
 * @implements CommandHandler<VerdictCommand>
 */
final readonly class RecordVerdict implements CommandHandler
{
    public function __construct(private Journal $journal, private RollUpVerdicts $rollUp) {}

    public function apply(AttemptCommand $command, CommandContext $context): void
    {
        $attempt = $context->attempt;
        $rounds = array_values(Round::query()->where('attempt_id', $attempt->id)->orderBy('position')->get()->all());
        // As rows: an attempt may have hundreds, and only their verdicts are needed.
        $steps = DB::table('step_results')
            ->whereIn('round_id', array_column($rounds, 'id'))
            ->orderBy('position')
            ->get(['id', 'round_id', 'position', 'verdict'])
            ->groupBy('round_id');
        $round = array_values(array_filter($rounds, static fn(Round $r): bool => $r->position === $command->round))[0] ?? null;
        $step = null === $round ? null : $steps->get($round->id)?->firstWhere('position', $command->step);
        if (null === $round || null === $step) {
            throw ValidationException::withMessages(['step' => 'There is no such step in this attempt.']);
        }
        if (null !== $round->skipped) {
            throw ValidationException::withMessages(['round' => 'This round was left out. Take it up again first.']);
        }
        $from = $step->verdict;
        $words = $command->words();
        $words['reason'] = ReasonNames::listed($attempt->project_id, $command->verdict, $words['reason']);
        $active = max(0, $command->activeMs);
        $takenBack = Verdict::NotRun === $command->verdict;
        DB::table('step_results')
            ->where('id', $step->id)
            ->update([
                ...$words,
                'verdict' => $command->verdict->value,
                'judged_at' => $takenBack ? null : Carbon::now()->format('Y-m-d H:i:s.uP'),
                'active_ms' => DB::raw("active_ms + {$active}"),
            ]);
        $step->verdict = $command->verdict->value;
        $facts = array_map(
            static fn(Round $r): RoundFacts => new RoundFacts(
                $r->position,
                array_values(
                    ($steps->get($r->id) ?? collect())->map(static fn(\stdClass $s): Verdict => Verdict::from($s->verdict))->all(),
                ),
                null !== $r->skipped,
                $r->repeats,
            ),
            $rounds,
        );
        $this->rollUp->save($attempt, $rounds, $facts);
        $attempt->active_ms += $active;
        $said = array_filter($words, static fn(string $word): bool => '' !== $word);
        $this->journal->append(
            $attempt,
            $context->actor,
            $takenBack ? 'verdict_taken_back' : 'verdict_given',
            [
                'round' => $round->position,
                'step' => $step->position,
                'from' => $from,
                'to' => $command->verdict->value,
                'active_ms' => $active,
                ...$said,
            ],
            $context->stamp,
        );
    }
}
