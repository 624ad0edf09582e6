<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\LateCommand;
use LucidStep\App\Models\Round;
use LucidStep\App\Models\User;
use LucidStep\App\Support\DeviceStamp;
use LucidStep\App\Support\Record\Journal;
use LucidStep\App\Support\Secrets\MaskSecrets;
use LucidStep\Core\Verdict\Verdict;

/**
 * Leaves a round out with a word of why, takes it up again, or walks its row once more as a round of its own.
 */
final readonly class SkipOrRepeatRound
{
    /** An attempt has at most so many rounds, repeated ones among them. */
    public const MOST = 500;

    public function __construct(private RecordInAttempt $act, private Journal $journal, private RecordVerdict $verdicts)
    {
    }

    /**
     * @param  array{round: int, act: 'skip'|'take_up'|'repeat', reason?: ?string}  $fields
     *
     * @return ?LateCommand the act, when it arrived too late
     *
     * @throws ValidationException when there is no such round, or it cannot be done with it
     */
    public function __invoke(Attempt $attempt, User $user, array $fields, DeviceStamp $stamp): ?LateCommand
    {
        $fields = [...$fields, ...MaskSecrets::hide($attempt, ['reason' => $fields['reason'] ?? null])];

        return ($this->act)($attempt, $user, 'round_'.$fields['act'], $fields, $stamp, function (Attempt $attempt) use ($user, $fields, $stamp): void {
            $rounds = Round::query()->where('attempt_id', $attempt->id)->with('results')->orderBy('position')->get();
            $round = $rounds->firstWhere('position', $fields['round']);
            if (!$round instanceof Round) {
                throw ValidationException::withMessages(['round' => 'There is no such round in this attempt.']);
            }
            $reason = trim((string) ($fields['reason'] ?? ''));
            if ('skip' === $fields['act']) {
                $this->skip($round, $reason);
            } elseif ('take_up' === $fields['act']) {
                $round->skipped = null;
            } else {
                $rounds->push($this->repeat($attempt, $round, array_values($rounds->all())));
            }
            $this->verdicts->rollUp($attempt, $rounds->all());
            $this->journal->append($attempt, $user, ['skip' => 'round_skipped', 'take_up' => 'round_taken_up', 'repeat' => 'round_repeated'][$fields['act']], array_filter(['round' => $round->position, 'reason' => $reason], static fn (mixed $v): bool => '' !== $v), $stamp);
        });
    }

    private function skip(Round $round, string $reason): void
    {
        if (grapheme_strlen($reason) < 3) {
            throw ValidationException::withMessages(['reason' => 'Say in a few words why the round is left out.']);
        }
        if (Verdict::NotRun !== $round->facts()->rollUp() && null === $round->skipped) {
            throw ValidationException::withMessages(['round' => 'This round has verdicts already. Take them back first, or judge its steps not applicable.']);
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
    public function repeat(Attempt $attempt, Round $round, array $rounds): Round
    {
        foreach ($rounds as $other) {
            if ($other->repeats === $round->position) {
                throw ValidationException::withMessages(['round' => "Round {$other->position} walks this row once more already. Repeat that one."]);
            }
        }
        if (\count($rounds) >= self::MOST) {
            throw ValidationException::withMessages(['round' => \sprintf('An attempt has at most %d rounds.', self::MOST)]);
        }
        $id = (string) Str::uuid7();
        DB::table('rounds')->insert(['id' => $id, 'attempt_id' => $attempt->id, 'position' => \count($rounds) + 1, 'data_row' => DB::table('rounds')->where('id', $round->id)->value('data_row'), 'repeats' => $round->position]);
        DB::table('step_results')->insert(array_map(static fn (array $s): array => ['id' => (string) Str::uuid7(), 'round_id' => $id, 'position' => $s['position']], $attempt->snapshot['steps']));

        return Round::query()->with('results')->findOrFail($id);
    }
}
