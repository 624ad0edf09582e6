<?php

declare(strict_types=1);

namespace LucidStep\App\Actions\Walk;

use Illuminate\Support\Carbon;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\LateAct;
use LucidStep\App\Models\Round;
use LucidStep\App\Models\StepResult;
use LucidStep\App\Models\User;
use LucidStep\Core\Verdict\RoundFacts;
use LucidStep\Core\Verdict\Rounds;
use LucidStep\Core\Verdict\Verdict;

/**
 * Gives a step its verdict, or takes it back.
 */
final readonly class RecordVerdict
{
    public function __construct(private Act $act, private Journal $journal)
    {
    }

    /**
     * @param  array{round: int, step: int, verdict: string, happened?: ?string, reason?: ?string, waits_on?: ?string, active_ms?: ?int}  $fields
     *
     * @return ?LateAct the act, when it arrived too late
     */
    public function __invoke(Attempt $attempt, User $user, array $fields, DeviceStamp $stamp): ?LateAct
    {
        $verdict = Verdict::from($fields['verdict']);
        $fields = [...$fields, ...Secrets::hide($attempt, array_intersect_key($fields, array_flip(['happened', 'reason', 'waits_on'])))];
        $words = [
            'happened' => Verdict::Fail === $verdict ? trim((string) ($fields['happened'] ?? '')) : '',
            'reason' => Verdict::NotRun === $verdict ? '' : trim((string) ($fields['reason'] ?? '')),
            'waits_on' => Verdict::Blocked === $verdict ? trim((string) ($fields['waits_on'] ?? '')) : '',
        ];

        return ($this->act)($attempt, $user, 'verdict_given', $fields, $stamp, function (Attempt $attempt) use ($user, $fields, $verdict, $words, $stamp): void {
            $rounds = Round::query()->where('attempt_id', $attempt->id)->with('results')->orderBy('position')->get();
            $round = $rounds->firstWhere('position', $fields['round']);
            $result = $round?->results->firstWhere('position', $fields['step']);
            if (!$round instanceof Round || !$result instanceof StepResult) {
                throw ValidationException::withMessages(['step' => 'There is no such step in this attempt.']);
            }
            $from = $result->verdict;
            $active = max(0, (int) ($fields['active_ms'] ?? 0));
            $result->fill([...$words, 'verdict' => $verdict, 'judged_at' => Verdict::NotRun === $verdict ? null : Carbon::now()]);
            $result->active_ms += $active;
            $result->save();
            if (null !== $round->skipped) {
                throw ValidationException::withMessages(['round' => 'This round was left out. Take it up again first.']);
            }
            $this->rollUp($attempt, $rounds->all());
            $attempt->active_ms += $active;
            $this->journal->append($attempt, $user, Verdict::NotRun === $verdict ? 'verdict_taken_back' : 'verdict_given', array_filter([
                'round' => $round->position,
                'step' => $result->position,
                'from' => $from->value,
                'to' => $verdict->value,
                'active_ms' => $active,
                ...$words,
            ], static fn (mixed $v): bool => '' !== $v), $stamp);
        });
    }

    /**
     * Brings the verdicts of rounds and attempt in line with their steps. What did not change is not written.
     *
     * @param  array<array-key, Round>  $rounds all of the attempt, with their results
     */
    public function rollUp(Attempt $attempt, array $rounds): void
    {
        $facts = [];
        foreach ($rounds as $round) {
            $facts[] = $of = $round->facts();
            $round->roll_up = $of->rollUp();
            $round->save();
        }
        $attempt->roll_up = Rounds::rollUp($facts);
        $attempt->has_verdict = [] !== array_filter($facts, static fn (RoundFacts $r): bool => Verdict::NotRun !== $r->rollUp());
    }
}
