<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Casebook\Queries\TextChecks;
use LucidStep\App\Areas\Cycles\Exceptions\CycleConflict;
use LucidStep\App\Areas\Cycles\Queries\ReadBoard;
use LucidStep\App\Areas\Cycles\Queries\UndecidedEntries;
use LucidStep\App\Areas\Notices\Actions\NotifyPeople;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Problems\Conflict;
use LucidStep\App\Support\Record\CycleChain;
use LucidStep\Core\Planning\CycleLogKind;
use LucidStep\Core\Planning\CycleState;
use LucidStep\Core\Text\Why;
use LucidStep\Core\Verdict\Policies;

/**
 * Moves a cycle between draft, review, released and closed, with who and why, and signs it off.
 */
final readonly class ChangeCycleState
{
    public function __construct(
        private CycleLog $log,
        private CycleChain $chain,
        private NotifyPeople $notify,
        private ReadBoard $boards,
        private TextChecks $checks,
    ) {}

    /**
     * @throws Conflict            when it cannot go there
     * @throws ValidationException when a word of why is missing, or an empty cycle would be released
     */
    public function __invoke(Cycle $cycle, User $user, CycleState $to, string $reason = ''): Cycle
    {
        $cycle = Cycle::query()->lockForUpdate()->findOrFail($cycle->id);
        $from = $cycle->state;
        $reason = trim($reason);
        if (!\in_array($to, $from->next($this->reviewed($cycle)), true)) {
            throw CycleConflict::cannotBecome($from, $to);
        }
        if ($from->needsReason($to) && !Why::isGiven($reason)) {
            throw ValidationException::withMessages(['reason' => 'Say in a few words why.']);
        }
        $this->mayGo($cycle, $user, $from, $to);
        $cycle->update(['state' => $to->value, 'closed_at' => $to->isOpen() ? null : Carbon::now()]);
        [$kind, $word] = match (true) {
            CycleState::InReview === $to => [CycleLogKind::ReviewRequested, 'Asked for a review'],
            CycleState::Released === $to && !$from->isOpen() => [CycleLogKind::Reopened, 'Reopened the cycle'],
            CycleState::Released === $to => [CycleLogKind::Released, 'Released the cycle'],
            CycleState::Draft === $to && CycleState::InReview === $from => [CycleLogKind::Returned, 'Returned the cycle to draft'],
            CycleState::Draft === $to => [CycleLogKind::Withdrawn, 'Took the cycle back to draft'],
            CycleState::Closed === $to => [CycleLogKind::Closed, 'Closed the cycle'],
            default => [CycleLogKind::Abandoned, 'Abandoned the cycle'],
        };
        ($this->log)($cycle, $user, $kind, $word, $reason);
        $this->chain->append($cycle->id, $user, 'cycle_moved', ['from' => $from->value, 'to' => $to->value, 'reason' => $reason]);
        match (true) {
            CycleState::InReview === $to => $this->notify->review($cycle, $user),
            CycleState::Released === $to && $from->isOpen() => $this->notify->released($cycle, $user),
            CycleState::Draft === $to && CycleState::InReview === $from => $this->notify->returned($cycle, $user, $reason),
            !$to->isOpen() => $this->notify->ended($cycle, $user, $reason, $this->counts($cycle)),
            default => null,
        };

        return $cycle;
    }

    /**
     * Closes a cycle of which everything is decided, when the policy says so.
     */
    public function closeItself(Cycle $cycle): void
    {
        $cycle->update(['state' => CycleState::Closed->value, 'closed_at' => Carbon::now()]);
        ($this->log)($cycle, null, CycleLogKind::Closed, 'The cycle closed itself: everything in it is decided');
        $this->chain->append($cycle->id, null, 'cycle_moved', ['from' => 'released', 'to' => 'closed', 'reason' => '']);
        $this->notify->ended($cycle, null, '', $this->counts($cycle));
    }

    /**
     * A sign-off keeps what was knowingly left unwalked.
     */
    public function signOff(Cycle $cycle, User $user, string $note): void
    {
        $cycle = Cycle::query()->lockForUpdate()->findOrFail($cycle->id);
        if ($cycle->state->isPlanned()) {
            throw CycleConflict::signedOffTooEarly();
        }
        $left = UndecidedEntries::in($cycle)
            ->join('cases', 'cases.id', '=', 'case_id')
            ->leftJoin('configurations', 'configurations.id', '=', 'configuration_id')
            ->orderBy('entries.position')
            ->get([
                'entries.id',
                'cases.key',
                'cases.title',
                DB::raw("coalesce(configurations.name, '') as configuration"),
                'display_state',
            ])
            ->map(static fn(object $e): array => (array) $e)
            ->all();
        if ([] !== $left && !Why::isGiven($note)) {
            throw ValidationException::withMessages([
                'note' => \sprintf(
                    '%d %s left unwalked: say in a few words why that is all right.',
                    \count($left),
                    1 === \count($left) ? 'entry is' : 'entries are',
                ),
            ]);
        }
        DB::table('sign_offs')->insert([
            'id' => (string) Str::uuid7(),
            'cycle_id' => $cycle->id,
            'user_id' => $user->id,
            'at' => Carbon::now(),
            'note' => trim($note),
            'counts' => json_encode((object) (app(ReadBoard::class)->counts([$cycle->id])[$cycle->id] ?? []), \JSON_THROW_ON_ERROR),
            'unwalked' => json_encode($left, \JSON_THROW_ON_ERROR),
        ]);
        ($this->log)(
            $cycle,
            $user,
            CycleLogKind::SignedOff,
            [] === $left ? 'Signed the cycle off' : \sprintf('Signed the cycle off with %d left unwalked', \count($left)),
            trim($note),
        );
        $this->chain->append($cycle->id, $user, 'signed_off', ['note' => trim($note), 'unwalked' => \count($left)]);
    }

    private function mayGo(Cycle $cycle, User $user, CycleState $from, CycleState $to): void
    {
        if (\in_array($to, [CycleState::Released, CycleState::InReview], true) && $from->isOpen()) {
            $this->mustBeWalkable($cycle);
        }
        if (AddEntries::isRunning($cycle)) {
            throw CycleConflict::adding();
        }
        $asked =
            CycleState::InReview === $from && CycleState::Released === $to
                ? DB::table('cycle_log')
                    ->where('cycle_id', $cycle->id)
                    ->where('kind', CycleLogKind::ReviewRequested)
                    ->orderByDesc('id')
                    ->value('actor_id')
                : null;
        if ($asked === $user->id && $this->reviewed($cycle)) {
            throw CycleConflict::ownReview();
        }
        if (CycleState::Draft === $to && DB::table('entries')->where('cycle_id', $cycle->id)->where('attempts_count', '>', 0)->exists()) {
            throw CycleConflict::wasWalked();
        }
    }

    /**
     * @throws CycleConflict when there is nothing in it, or a text that cannot be walked
     */
    private function mustBeWalkable(Cycle $cycle): void
    {
        $cases = DB::table('entries')
            ->join('cases', 'cases.id', '=', 'entries.case_id')
            ->where('cycle_id', $cycle->id)
            ->orderBy('cases.number')
            ->distinct()
            ->get(['case_version_id', 'cases.key', 'cases.number']);
        if ($cases->isEmpty()) {
            throw CycleConflict::isEmpty();
        }
        $errors = $this->checks->errors($cycle->project_id, array_values($cases->pluck('case_version_id')->unique()->all()));
        if ([] !== $errors) {
            $named = $cases
                ->whereIn('case_version_id', array_keys($errors))
                ->mapWithKeys(static fn(object $c): array => [$c->key => $errors[$c->case_version_id][0]]);
            throw CycleConflict::cannotBeWalked($named->all());
        }
    }

    private function reviewed(Cycle $cycle): bool
    {
        return Policies::fromArray(Project::query()->findOrFail($cycle->project_id, ['id', 'policies'])->policies)->cyclesAreReviewed;
    }

    /**
     * @return array<string, int> entries by what they show
     */
    private function counts(Cycle $cycle): array
    {
        return $this->boards->counts([$cycle->id])[$cycle->id] ?? [];
    }
}
