<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Cycles\Actions\BlockDependents;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Entry;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\Core\Verdict\AttemptFacts;
use LucidStep\Core\Verdict\AttemptState;
use LucidStep\Core\Verdict\EntryState;
use LucidStep\Core\Verdict\Verdict;

/**
 * Brings what an entry shows in line with its attempts, in the transaction of the event.
 */
final readonly class RefreshEntry
{
    public function __construct(private PublishChange $announce) {}

    public function __invoke(Entry $entry): void
    {
        $before = $entry->display_state;
        $entry->fill(self::shown($entry));
        if ($before !== $entry->display_state) {
            $entry->display_state_at = Carbon::now();
        }
        $entry->save();
        ($this->announce)($entry->project_id, 'entry', $entry->id, $entry->cycle_id);
        if ($before !== $entry->display_state) {
            BlockDependents::lift($entry->cycle_id);
        }
    }

    /**
     * How what is stored of an entry differs from what its attempts come to; null when it does not.
     */
    public function difference(Entry $entry): ?string
    {
        foreach (self::shown($entry) as $field => $value) {
            $stored = $entry->getAttribute($field);
            if ($stored !== $value) {
                return \sprintf('the entry shows %s %s, its attempts say %s', $field, json_encode($stored), json_encode($value));
            }
        }

        return null;
    }

    /**
     * @return array<string, scalar|null> what the attempts of an entry come to, by column
     */
    private static function shown(Entry $entry): array
    {
        $attempts = Attempt::query()
            ->where('entry_id', $entry->id)
            ->orderBy('number')
            ->get(['id', 'number', 'state', 'has_verdict', 'verdict', 'started_at', 'active_ms', 'corrected_ms', 'parallel_reason']);
        $facts = array_values($attempts->map(static fn(Attempt $a): AttemptFacts => $a->facts())->all());
        $state = EntryState::of($facts, $entry->retest_asked_at?->toDateTimeImmutable());
        if (Verdict::NotRun->value === $state->displayState && DB::table('entry_stops')->where('entry_id', $entry->id)->exists()) {
            $state = EntryState::of($facts, null, true);
        }

        return [
            'display_state' => $state->displayState,
            'previous_verdict' => $state->previousVerdict?->value,
            'open_attempt_id' => $attempts->first(
                static fn(Attempt $a): bool => AttemptState::Open === $a->state && null === $a->parallel_reason,
            )?->id,
            'last_attempt_id' => $attempts->last()?->id,
            'attempts_count' => $attempts->count(),
            'active_ms' => (int) $attempts->sum(static fn(Attempt $a): int => $a->corrected_ms ?? $a->active_ms),
        ];
    }
}
