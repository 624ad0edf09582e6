<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Walk\Commands\AttemptCommand;
use LucidStep\App\Areas\Walk\Commands\CommandContext;
use LucidStep\App\Areas\Walk\Commands\CommandHandler;
use LucidStep\App\Areas\Walk\Commands\RoundChange;
use LucidStep\App\Areas\Walk\Commands\RoundCommand;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Round;
use LucidStep\App\Support\Record\Journal;
use LucidStep\Core\Text\Why;
use LucidStep\Core\Verdict\Verdict;

/**
 * Leaves a round out with a word of why, takes it up again, or walks its row once more as a round of its own.
 *
 * @implements CommandHandler<RoundCommand>
 */
final readonly class SkipOrRepeatRound implements CommandHandler
{
    /** An attempt has at most so many rounds, repeated ones among them. */
    public const MOST = 500;

    public function __construct(private Journal $journal, private RollUpVerdicts $rollUp) {}

    public function apply(AttemptCommand $command, CommandContext $context): void
    {
        $attempt = $context->attempt;
        $rounds = Round::query()->where('attempt_id', $attempt->id)->with('results')->orderBy('position')->get();
        $round = $rounds->firstWhere('position', $command->round);
        if (!($round instanceof Round)) {
            throw ValidationException::withMessages(['round' => 'There is no such round in this attempt.']);
        }
        match ($command->change) {
            RoundChange::Skip => $this->skip($round, $command->reason),
            RoundChange::TakeUp => ($round->skipped = null),
            RoundChange::Repeat => $rounds->push($this->repeat($attempt, $round, array_values($rounds->all()))),
        };
        ($this->rollUp)($attempt, array_values($rounds->all()));
        $reason = '' === $command->reason ? [] : ['reason' => $command->reason];
        $this->journal->append(
            $attempt,
            $context->actor,
            $command->change->event(),
            ['round' => $round->position, ...$reason],
            $context->stamp,
        );
    }

    private function skip(Round $round, string $reason): void
    {
        if (!Why::isGiven($reason)) {
            throw ValidationException::withMessages(['reason' => 'Say in a few words why the round is left out.']);
        }
        if (Verdict::NotRun !== $round->facts()->rollUp() && null === $round->skipped) {
            throw ValidationException::withMessages([
                'round' => 'This round has verdicts already. Take them back first, or judge its steps not applicable.',
            ]);
        }
        $round->skipped = $reason;
    }

    /**
     * Walks the row of a round once more, as a round at the end.
     *
     * @param  list<Round>  $rounds all of the attempt, in order
     *
     * @throws ValidationException when it is walked once more already, or there are too many
     */
    private function repeat(Attempt $attempt, Round $round, array $rounds): Round
    {
        foreach ($rounds as $other) {
            if ($other->repeats === $round->position) {
                throw ValidationException::withMessages([
                    'round' => "Round {$other->position} walks this row once more already. Repeat that one.",
                ]);
            }
        }
        if (\count($rounds) >= self::MOST) {
            throw ValidationException::withMessages(['round' => \sprintf('An attempt has at most %d rounds.', self::MOST)]);
        }
        $id = (string) Str::uuid7();
        DB::table('rounds')->insert([
            'id' => $id,
            'attempt_id' => $attempt->id,
            'position' => \count($rounds) + 1,
            'data_row' => DB::table('rounds')->where('id', $round->id)->value('data_row'),
            'repeats' => $round->position,
        ]);
        DB::table('step_results')->insert(
            array_map(
                static fn(array $s): array => ['id' => (string) Str::uuid7(), 'round_id' => $id, 'position' => $s['position']],
                $attempt->snapshot['steps'],
            ),
        );

        return Round::query()->with('results')->findOrFail($id);
    }
}
