<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\LateCommand;
use LucidStep\App\Models\Round;
use LucidStep\App\Models\User;
use LucidStep\App\Support\DeviceStamp;
use LucidStep\App\Support\Record\Journal;
use LucidStep\App\Support\Secrets\MaskSecrets;
use LucidStep\Core\Verdict\RoundFacts;
use LucidStep\Core\Verdict\Rounds;
use LucidStep\Core\Verdict\Verdict;

/**
 * Gives a step its verdict, or takes it back.
 */
final readonly class RecordVerdict
{
    public function __construct(private RecordInAttempt $act, private Journal $journal)
    {
    }

    /**
     * @param  array{round: int, step: int, verdict: string, happened?: ?string, reason?: ?string, waits_on?: ?string, active_ms?: ?int}  $fields
     *
     * @return ?LateCommand the act, when it arrived too late
     */
    public function __invoke(Attempt $attempt, User $user, array $fields, DeviceStamp $stamp): ?LateCommand
    {
        $verdict = Verdict::from($fields['verdict']);
        $fields = [...$fields, ...MaskSecrets::hide($attempt, array_intersect_key($fields, array_flip(['happened', 'reason', 'waits_on'])))];
        $words = [
            'happened' => Verdict::Fail === $verdict ? trim((string) ($fields['happened'] ?? '')) : '',
            'reason' => Verdict::NotRun === $verdict ? '' : trim((string) ($fields['reason'] ?? '')),
            'waits_on' => Verdict::Blocked === $verdict ? trim((string) ($fields['waits_on'] ?? '')) : '',
        ];

        return ($this->act)($attempt, $user, 'verdict_given', $fields, $stamp, function (Attempt $attempt) use ($user, $fields, $verdict, $words, $stamp): void {
            $rounds = Round::query()->where('attempt_id', $attempt->id)->orderBy('position')->get();
            // As rows: an attempt may have hundreds, and only their verdicts are needed.
            $steps = DB::table('step_results')->whereIn('round_id', $rounds->modelKeys())->orderBy('position')->get(['id', 'round_id', 'position', 'verdict'])->groupBy('round_id');
            $round = $rounds->firstWhere('position', $fields['round']);
            $step = null === $round ? null : $steps->get($round->id)?->firstWhere('position', $fields['step']);
            if (!$round instanceof Round || null === $step) {
                throw ValidationException::withMessages(['step' => 'There is no such step in this attempt.']);
            }
            if (null !== $round->skipped) {
                throw ValidationException::withMessages(['round' => 'This round was left out. Take it up again first.']);
            }
            $from = $step->verdict;
            $active = max(0, (int) ($fields['active_ms'] ?? 0));
            DB::table('step_results')->where('id', $step->id)->update([...$words, 'verdict' => $verdict->value, 'judged_at' => Verdict::NotRun === $verdict ? null : Carbon::now()->format('Y-m-d H:i:s.uP'), 'active_ms' => DB::raw("active_ms + {$active}")]);
            $step->verdict = $verdict->value;
            $this->settle($attempt, $rounds->all(), array_values($rounds->map(static fn (Round $r): RoundFacts => new RoundFacts(
                $r->position, array_values(($steps->get($r->id) ?? collect())->map(static fn (\stdClass $s): Verdict => Verdict::from($s->verdict))->all()), null !== $r->skipped, $r->repeats,
            ))->all()));
            $attempt->active_ms += $active;
            $this->journal->append($attempt, $user, Verdict::NotRun === $verdict ? 'verdict_taken_back' : 'verdict_given', array_filter([
                'round' => $round->position,
                'step' => $step->position,
                'from' => $from,
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
        $this->settle($attempt, $rounds, array_values(array_map(static fn (Round $r): RoundFacts => $r->facts(), $rounds)));
    }

    /**
     * @param  array<array-key, Round>  $rounds
     * @param  list<RoundFacts>  $facts of each of them, in the same order
     */
    private function settle(Attempt $attempt, array $rounds, array $facts): void
    {
        foreach (array_values($rounds) as $i => $round) {
            $round->roll_up = $facts[$i]->rollUp();
            $round->save();
        }
        $attempt->roll_up = Rounds::rollUp($facts);
        $attempt->has_verdict = [] !== array_filter($facts, static fn (RoundFacts $r): bool => Verdict::NotRun !== $r->rollUp());
    }
}
