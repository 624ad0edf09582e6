<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Cycles\Data\BlockPreview;
use LucidStep\App\Areas\Cycles\Data\RefusedEntry;
use LucidStep\App\Areas\Cycles\Exceptions\CycleConflict;
use LucidStep\App\Areas\Cycles\Queries\ReadCycle;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Problems\Conflict;
use LucidStep\Core\Planning\Cascade;
use LucidStep\Core\Planning\Conditions;
use LucidStep\Core\Planning\CycleLogKind;
use LucidStep\Core\Verdict\AttemptFacts;
use LucidStep\Core\Verdict\EntryState;

/**
 * Blocking on: what needs the pass of a failed or blocked entry is stopped, after it was shown, and let go again when
 * none of its causes stands any more.
 */
final readonly class BlockDependents
{
    public function __construct(private CycleLog $log) {}

    /**
     * @param  bool  $asIfFailed what it would stop if it failed now
     */
    public function preview(Entry $cause, bool $asIfFailed = false): BlockPreview
    {
        $ids = $this->reach($cause, $asIfFailed);
        $stopped = array_values(DB::table('entry_stops')->where('cause_id', $cause->id)->pluck('entry_id')->all());

        return new BlockPreview($this->named(array_values(array_diff($ids, $stopped))), $this->named($stopped));
    }

    /**
     * What several entries of a cycle would stop if all of them failed now.
     *
     * @param  list<string>  $causes ids
     */
    public function previewAll(Cycle $cycle, array $causes): BlockPreview
    {
        $open = self::open($cycle->id);
        $conditions = Conditions::of(ReadCycle::conditions($cycle->id));
        $stopped = DB::table('entry_stops')->whereIn('cause_id', $causes)->pluck('entry_id')->all();
        $reached = array_merge([], ...array_map(static fn(string $c): array => Cascade::reach($c, $conditions, $open), $causes));

        return new BlockPreview(
            $this->named(array_values(array_diff(array_unique($reached), $stopped, $causes))),
            $this->named(array_values(array_unique($stopped))),
        );
    }

    /**
     * Stops what needs the pass of any of some failed or blocked entries of a cycle, where there is anything to stop.
     *
     * @param  list<string>  $causes ids; those that did not fail and are not blocked stop nothing
     *
     * @return list<string> ids of what these entries stop by now
     */
    public function applyAll(Cycle $cycle, array $causes, User $user): array
    {
        $cycle = OpenCycle::lock($cycle);
        $failed = Entry::query()
            ->where('cycle_id', $cycle->id)
            ->whereIn('id', $causes)
            ->whereIn('display_state', ['fail', 'blocked'])
            ->where(static fn($q) => $q->whereNotNull('last_attempt_id')->orWhereNotIn('id', DB::table('entry_stops')->select('entry_id')))
            ->with('case')
            ->orderBy('position')
            ->get();
        $open = self::open($cycle->id);
        $conditions = Conditions::of(ReadCycle::conditions($cycle->id));
        $rows = $keys = [];
        foreach ($failed as $cause) {
            foreach (Cascade::reach($cause->id, $conditions, $open) as $id) {
                $rows[] = ['entry_id' => $id, 'cause_id' => $cause->id, 'actor_id' => $user->id, 'at' => Carbon::now()];
                $keys[$cause->id] = $cause->case->key;
            }
        }
        foreach (array_chunk($rows, 5000) as $some) {
            DB::table('entry_stops')->insertOrIgnore($some);
        }
        $ids = array_values(array_unique(array_column($rows, 'entry_id')));
        self::show($cycle, $ids);
        if ([] !== $ids) {
            ($this->log)(
                $cycle,
                $user,
                CycleLogKind::EntriesBlocked,
                \sprintf(
                    'Stopped %d %s that need the pass of %s',
                    \count($ids),
                    1 === \count($ids) ? 'entry' : 'entries',
                    implode(', ', array_slice($keys, 0, 5)) . (\count($keys) > 5 ? ' …' : ''),
                ),
            );
        }

        return $ids;
    }

    /**
     * @throws Conflict when the entry did not fail and is not blocked, or nothing needs its pass
     * @return BlockPreview what is stopped now
     */
    public function apply(Entry $cause, User $user): BlockPreview
    {
        $cycle = OpenCycle::lock(Cycle::query()->findOrFail($cause->cycle_id));
        $cause = Entry::query()->lockForUpdate()->with('case')->findOrFail($cause->id);
        $ids = $this->reach($cause);
        if ([] === $ids) {
            throw CycleConflict::nothingToStop(\in_array($cause->display_state, ['fail', 'blocked'], true));
        }
        $now = Carbon::now();
        DB::table('entry_stops')->insertOrIgnore(
            array_map(
                static fn(string $id): array => ['entry_id' => $id, 'cause_id' => $cause->id, 'actor_id' => $user->id, 'at' => $now],
                $ids,
            ),
        );
        self::show($cycle, $ids);
        ($this->log)(
            $cycle,
            $user,
            CycleLogKind::EntriesBlocked,
            \sprintf('Stopped %d %s that need the pass of %s', \count($ids), 1 === \count($ids) ? 'entry' : 'entries', $cause->case->key),
        );

        return $this->preview($cause);
    }

    /**
     * Lets go what an entry stops, at a person's wish.
     */
    public function letGo(Entry $cause, User $user): BlockPreview
    {
        $cycle = OpenCycle::lock(Cycle::query()->findOrFail($cause->cycle_id));
        $cause = Entry::query()->lockForUpdate()->with('case')->findOrFail($cause->id);
        $ids = array_values(DB::table('entry_stops')->where('cause_id', $cause->id)->pluck('entry_id')->all());
        DB::table('entry_stops')->where('cause_id', $cause->id)->delete();
        self::show($cycle, $ids);
        if ([] !== $ids) {
            ($this->log)(
                $cycle,
                $user,
                CycleLogKind::EntriesUnblocked,
                \sprintf('Let go %d %s that %s had stopped', \count($ids), 1 === \count($ids) ? 'entry' : 'entries', $cause->case->key),
            );
        }

        return $this->preview($cause);
    }

    /**
     * What is stopped in a cycle, by what.
     *
     * @return list<array{entry_id: string, cause_id: string, actor_id: ?string, at: string}>
     */
    public static function stops(string $cycle): array
    {
        return array_values(
            DB::table('entry_stops')
                ->join('entries', 'entries.id', '=', 'entry_id')
                ->where('cycle_id', $cycle)
                ->get(['entry_id', 'cause_id', 'actor_id', 'at'])
                ->map(
                    static fn(\stdClass $s): array => [
                        'entry_id' => (string) $s->entry_id,
                        'cause_id' => (string) $s->cause_id,
                        'actor_id' => null === $s->actor_id ? null : (string) $s->actor_id,
                        'at' => (string) $s->at,
                    ],
                )
                ->all(),
        );
    }

    /**
     * Stops again what was let go by something that is taken back; what does not stand any more goes with {@see lift()}.
     *
     * @param  list<array{entry_id: string, cause_id: string, actor_id: ?string, at: string}>  $stops
     */
    public static function stopAgain(Cycle $cycle, array $stops): void
    {
        $there = DB::table('entries')->where('cycle_id', $cycle->id)->pluck('id')->flip();
        $stops = array_values(array_filter($stops, static fn(array $s): bool => isset($there[$s['entry_id']], $there[$s['cause_id']])));
        foreach (array_chunk($stops, 5000) as $some) {
            DB::table('entry_stops')->insertOrIgnore($some);
        }
        self::show($cycle, array_values(array_unique(array_column($stops, 'entry_id'))));
    }

    /**
     * Lets go what no standing cause stops, after anything in the cycle changed.
     */
    public static function lift(string $cycle): void
    {
        $stops = DB::table('entry_stops')
            ->join('entries', 'entries.id', '=', 'entry_stops.entry_id')
            ->where('entries.cycle_id', $cycle)
            ->get(['entry_id', 'cause_id'])
            ->groupBy('entry_id');
        if ($stops->isEmpty()) {
            return;
        }
        $conditions = Conditions::of(ReadCycle::conditions($cycle));
        // What a cause shows by a cascade is no verdict of its own.
        $causes = DB::table('entries')->whereIn('id', $stops->flatten(1)->pluck('cause_id')->unique());
        $verdicts = (clone $causes)
            ->where(
                static fn($q) => $q
                    ->whereNotIn('id', $stops->keys())
                    ->orWhereIn('id', DB::table('attempts')->where('state', 'finished')->select('entry_id')),
            )
            ->pluck('display_state', 'id')
            ->all();
        $gone = [];
        foreach ($stops as $entry => $of) {
            $all = array_values($of->pluck('cause_id')->all());
            foreach (array_diff($all, Cascade::standing((string) $entry, $all, $conditions, $verdicts)) as $cause) {
                $gone[] = ['entry_id' => (string) $entry, 'cause_id' => $cause];
            }
        }
        foreach (collect($gone)->groupBy('cause_id') as $cause => $of) {
            DB::table('entry_stops')->where('cause_id', $cause)->whereIn('entry_id', $of->pluck('entry_id'))->delete();
        }
        self::show(Cycle::query()->findOrFail($cycle, ['id', 'project_id']), array_values(array_unique(array_column($gone, 'entry_id'))));
    }

    /**
     * @return list<string>
     */
    private function reach(Entry $cause, bool $asIfFailed = false): array
    {
        $own = DB::table('entry_stops')->where('entry_id', $cause->id)->doesntExist() || null !== $cause->last_attempt_id;
        if (!$asIfFailed && (!$own || !\in_array($cause->display_state, ['fail', 'blocked'], true))) {
            return [];
        }

        return Cascade::reach($cause->id, Conditions::of(ReadCycle::conditions($cause->cycle_id)), self::open($cause->cycle_id));
    }

    /**
     * @return array<string, bool> whether each entry of a cycle can still be stopped
     */
    private static function open(string $cycle): array
    {
        $open = [];
        foreach (
            DB::table('entries')
                ->leftJoin('entry_stops', 'entry_stops.entry_id', '=', 'entries.id')
                ->where('cycle_id', $cycle)
                ->groupBy('entries.id')
                ->get(['entries.id', 'display_state', DB::raw('count(cause_id) as stops')])
            as $row
        ) {
            $open[$row->id] =
                \in_array($row->display_state, ['not_run', 'retest'], true) || ('blocked' === $row->display_state && $row->stops > 0);
        }

        return $open;
    }

    /**
     * Brings what entries show in line with what stops them, however many: their attempts are as they were.
     *
     * @param  list<string>  $ids
     */
    private static function show(Cycle $cycle, array $ids): void
    {
        if ([] === $ids) {
            return;
        }
        $attempts = Attempt::query()
            ->whereIn('entry_id', $ids)
            ->get(['id', 'entry_id', 'number', 'state', 'has_verdict', 'verdict', 'started_at', 'parallel_reason'])
            ->groupBy('entry_id');
        $stopped = DB::table('entry_stops')->whereIn('entry_id', $ids)->distinct()->pluck('entry_id')->flip();
        $by = [];
        foreach (
            DB::table('entries')
                ->whereIn('id', $ids)
                ->get(['id', 'display_state', 'retest_asked_at'])
            as $entry
        ) {
            $state = EntryState::of(
                array_values(($attempts[$entry->id] ?? collect())->map(static fn(Attempt $a): AttemptFacts => $a->facts())->all()),
                null === $entry->retest_asked_at ? null : new \DateTimeImmutable($entry->retest_asked_at),
                isset($stopped[$entry->id]),
            );
            if ($state->displayState !== $entry->display_state) {
                $by[$state->displayState][] = $entry->id;
            }
        }
        foreach ($by as $shows => $changed) {
            DB::table('entries')
                ->whereIn('id', $changed)
                ->update(['display_state' => $shows, 'display_state_at' => Carbon::now()]);
        }
        if ([] !== $by) {
            app(PublishChange::class)($cycle->project_id, 'entry', $cycle->id, $cycle->id);
        }
    }

    /**
     * @param  list<string>  $ids
     *
     * @return list<RefusedEntry>
     */
    private function named(array $ids): array
    {
        return array_values(
            DB::table('entries')
                ->join('cases', 'cases.id', '=', 'case_id')
                ->leftJoin('configurations', 'configurations.id', '=', 'configuration_id')
                ->whereIn('entries.id', $ids)
                ->orderBy('entries.position')
                ->get(['entries.id', 'cases.key', 'cases.title', 'configurations.name'])
                ->map(static fn(object $e): RefusedEntry => new RefusedEntry($e->id, $e->key, $e->title, (string) $e->name))
                ->all(),
        );
    }
}
