<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Queries;

use Illuminate\Database\Eloquent\Collection;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Cycles\Data\EntryReadiness;
use LucidStep\App\Areas\Cycles\Data\PlanCondition;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Core\Execution\CycleView;
use LucidStep\Core\Execution\EntryFacts;
use LucidStep\Core\Execution\HeldCheck;
use LucidStep\Core\Execution\Readiness;
use LucidStep\Core\Planning\Condition;
use LucidStep\Core\Planning\ConditionKind;
use LucidStep\Core\Planning\Conditions;
use LucidStep\Core\Planning\CycleState;
use LucidStep\Core\Verdict\EntryState;
use LucidStep\Core\Verdict\Policies;

/**
 * Reads cycles the way the rules look at them: which entries are ready, held or done, and which is next.
 */
final class ReadCycle
{
    /** What some entries wait for, and whose fail or block stops them, with what those others show. */
    private const JOINED = <<<'SQL'
    select link.entry_id, link.other_id, link.kind, other.cycle_id, other.position, other.display_state, other.previous_verdict,
        cases.key, exists(select from entry_stops where entry_stops.entry_id = other.id) as stopped
    from (
        select entry_id, needs_id as other_id, kind from entry_conditions where entry_id = any(?::uuid[])
        union all select entry_id, cause_id, 'stop' from entry_stops where entry_id = any(?::uuid[])
    ) as link
    join entries as other on other.id = link.other_id join cases on cases.id = other.case_id
    order by other.position
    SQL;

    /** What has to be known of an entry to say whether it is held. */
    private const FACTS = [
        'entries.id',
        'entries.cycle_id',
        'cases.key',
        'entries.display_state',
        'entries.previous_verdict',
        'entries.assignee_id',
        'attempts.tester_id as walker_id',
        'entries.not_before',
        'entries.not_after',
    ];

    /** So many entries are looked at together for the next one. */
    private const CANDIDATES = 60;

    /**
     * Whether one entry is ready, held or done: as its whole cycle would say, from no more than what it waits for. Two
     * queries, however large the cycle.
     */
    public function readiness(Entry $entry): Readiness
    {
        return $this->readinessOf(Collection::make([$entry->cycle]), $this->facts([$entry->id]))->of[$entry->id];
    }

    /**
     * Whether some entries are ready, held or done, with every reason and with what they wait for. One query, however large
     * their cycles.
     *
     * @param  Collection<int, Cycle>  $cycles
     * @param  array<array-key, \stdClass>  $rows of entries, with what {@see facts} reads of them
     */
    public function readinessOf(Collection $cycles, array $rows): EntryReadiness
    {
        [$views, $needs] = $this->views($cycles, $rows);
        $of = [];
        foreach ($rows as $row) {
            $of[$row->id] = $views[$row->cycle_id]->readiness($row->id);
        }

        return new EntryReadiness($of, $needs);
    }

    /**
     * @param  list<string>  $ids of entries
     *
     * @return list<\stdClass> in the order of their cycle
     */
    public function facts(array $ids): array
    {
        return array_values(
            DB::table('entries')
                ->join('cases', 'cases.id', '=', 'entries.case_id')
                ->leftJoin('attempts', 'attempts.id', '=', 'entries.open_attempt_id')
                ->whereRaw('entries.id = any(?::uuid[])', [self::asArray($ids)])
                ->orderBy('entries.position')
                ->get(self::FACTS)
                ->all(),
        );
    }

    /**
     * All entries of a cycle that are held now. Three queries, of no more than what may be held.
     *
     * @return list<string> ids
     */
    public function held(Cycle $cycle): array
    {
        return $this->heldIn([$cycle])[$cycle->id];
    }

    /**
     * The same of several cycles, in as many queries.
     *
     * @param  list<Cycle>  $cycles
     *
     * @return array<string, list<string>> ids by cycle
     */
    public function heldIn(array $cycles): array
    {
        $now = Carbon::now()->toDateTimeImmutable();
        $ids = array_column($cycles, 'id');
        $checks = array_combine($ids, array_map(static fn(Cycle $c): HeldCheck => new HeldCheck($now, $c->conditions_hold), $cycles));
        $state = static fn(string $shown, ?string $before, bool $stopped = false): EntryState => EntryState::stored(
            $shown,
            $before,
            $stopped,
        );
        $held = array_fill_keys($ids, []);
        foreach (
            DB::table('entries')
                ->whereIn('cycle_id', $ids)
                ->where(static fn($q) => $q->whereNotNull('not_before')->orWhereNotNull('not_after'))
                ->get(['id', 'cycle_id', 'display_state', 'previous_verdict', 'not_before', 'not_after'])
            as $e
        ) {
            $shown = $state($e->display_state, $e->previous_verdict);
            if ($checks[$e->cycle_id]->byWindow($shown, self::time($e->not_before), self::time($e->not_after))) {
                $held[$e->cycle_id][$e->id] = true;
            }
        }
        foreach (
            DB::table('entry_stops')
                ->join('entries', 'entries.id', '=', 'entry_id')
                ->whereIn('cycle_id', $ids)
                ->get(['entries.id', 'cycle_id', 'display_state', 'previous_verdict'])
            as $e
        ) {
            if ($checks[$e->cycle_id]->byStop($state($e->display_state, $e->previous_verdict, true))) {
                $held[$e->cycle_id][$e->id] = true;
            }
        }
        foreach ($this->unpassed($ids) as $c) {
            $waits = $checks[$c->cycle_id]->byCondition(
                $state($c->display_state, $c->previous_verdict),
                ConditionKind::from($c->kind),
                $state($c->needed_state, $c->needed_before, $c->needed_stopped),
            );
            $held[$c->cycle_id] += $waits ? array_fill_keys(explode(',', $c->entries), true) : [];
        }

        return array_map(static fn(array $of): array => array_map(strval(...), array_keys($of)), $held);
    }

    /**
     * Conditions of the undecided entries of cycles on what did not pass; a pass meets every condition. Those of which the same
     * is known stand together.
     *
     * @param  list<string>  $cycles
     *
     * @return list<\stdClass>
     */
    private function unpassed(array $cycles): array
    {
        $rows = DB::select(
            <<<'SQL'
            select waiting.cycle_id, kind, waiting.display_state, waiting.previous_verdict, needed.display_state as needed_state,
                needed.previous_verdict as needed_before, stops.entry_id is not null as needed_stopped,
                string_agg(entry_conditions.entry_id::text, ',') as entries
            from entry_conditions join entries as waiting on waiting.id = entry_conditions.entry_id
            join entries as needed on needed.id = needs_id and needed.cycle_id = waiting.cycle_id
            left join (select distinct entry_id from entry_stops) as stops on stops.entry_id = needs_id
            where waiting.cycle_id = any(?::uuid[]) and waiting.display_state = any(?::text[])
                and needed.display_state <> 'pass'
            group by 1, 2, 3, 4, 5, 6, 7
            SQL
            ,
            [self::asArray($cycles), self::asArray(UndecidedEntries::STATES)],
        );

        return array_values($rows);
    }

    /**
     * The entry a person walks next in each cycle, by the rule of the core: none where they do not record, one of nobody's
     * where opening takes it. The rule is asked about the undecided entries that may be theirs, a few at a time.
     *
     * @param  Collection<int, Cycle>  $cycles
     *
     * @return array<string, string> entries by cycle id; a cycle without one is not in it
     */
    public function next(Collection $cycles, User $user, Role $role, Policies $policies): array
    {
        $next = [];
        for ($from = 0; $role->records() && $cycles->isNotEmpty(); $from += self::CANDIDATES) {
            $some = $this->candidates(array_values($cycles->modelKeys()), $user, $policies, $from);
            $cycles = $cycles->filter(static fn(Cycle $c): bool => isset($some[$c->id]));
            if ($cycles->isEmpty()) {
                break;
            }
            foreach ($this->views($cycles, array_merge(...array_values($some)))[0] as $cycle => $view) {
                $among = array_map(static fn(\stdClass $e): string => $e->id, $some[$cycle]);
                $found = $view->next($user->id, null, $policies->openingTakes, $among);
                if (null !== $found) {
                    $next[$cycle] = $found->id;
                }
            }
            $cycles = $cycles->reject(static fn(Cycle $c): bool => isset($next[$c->id]));
        }

        return $next;
    }

    /**
     * @param  list<string>  $cycles
     *
     * @return array<string, list<\stdClass>> entries by cycle, in its order
     */
    private function candidates(array $cycles, User $user, Policies $policies, int $from): array
    {
        $some = [];
        foreach (
            DB::select(
                <<<'SQL'
                select entry.*, attempts.tester_id as walker_id, '' as key from unnest(?::uuid[]) as cycle (id), lateral (
                    select id, cycle_id, position, display_state, previous_verdict, assignee_id, open_attempt_id, not_before, not_after
                    from entries where cycle_id = cycle.id and display_state = any(?::text[])
                        and (assignee_id = ? or (? = 'yes' and assignee_id is null))
                    order by position limit ? offset ?) as entry
                left join attempts on attempts.id = entry.open_attempt_id order by entry.position
                SQL
                ,
                [
                    self::asArray($cycles),
                    self::asArray(UndecidedEntries::STATES),
                    $user->id,
                    $policies->openingTakes ? 'yes' : 'no',
                    self::CANDIDATES,
                    $from,
                ],
            )
            as $row
        ) {
            $some[$row->cycle_id][] = $row;
        }

        return $some;
    }

    /**
     * Cycles as the rules see them, as far as some entries need it. One query.
     *
     * @param  Collection<int, Cycle>  $cycles
     * @param  array<array-key, \stdClass>  $rows of entries, with what {@see facts} reads of them
     *
     * @return array{array<string, CycleView>, array<string, list<PlanCondition>>} by cycle; what entries wait for, by entry
     */
    private function views(Collection $cycles, array $rows): array
    {
        $ids = self::asArray(array_map(static fn(\stdClass $e): string => $e->id, array_values($rows)));
        $conditions = $needs = $stops = $others = [];
        foreach ('{}' === $ids ? [] : DB::select(self::JOINED, [$ids, $ids]) as $link) {
            $others[$link->other_id] = $link;
            if ('stop' === $link->kind) {
                $stops[$link->entry_id][] = $link->other_id;

                continue;
            }
            $conditions[$link->cycle_id][] = new Condition($link->entry_id, $link->other_id, ConditionKind::from($link->kind));
            $needs[$link->entry_id][] = new PlanCondition($link->other_id, $link->kind, $link->key, $link->position);
        }
        $facts = [];
        foreach ($rows as $row) {
            unset($others[$row->id]);
            $facts[$row->cycle_id][] = new EntryFacts(
                $row->id,
                $row->key,
                EntryState::stored($row->display_state, $row->previous_verdict, isset($stops[$row->id])),
                $row->assignee_id,
                $row->walker_id,
                self::time($row->not_before),
                self::time($row->not_after),
                $stops[$row->id] ?? [],
            );
        }
        // Of what they wait for no more is known than what it shows.
        foreach ($others as $id => $other) {
            $state = EntryState::stored($other->display_state, $other->previous_verdict, $other->stopped);
            $facts[$other->cycle_id][] = new EntryFacts((string) $id, $other->key, $state);
        }
        $views = [];
        foreach ($cycles as $cycle) {
            $views[$cycle->id] = new CycleView(
                $facts[$cycle->id] ?? [],
                Conditions::of($conditions[$cycle->id] ?? []),
                Carbon::now()->toDateTimeImmutable(),
                $cycle->conditions_hold,
            );
        }

        return [$views, $needs];
    }

    /**
     * @return list<Condition>
     */
    public static function conditions(string $cycle): array
    {
        return self::asConditions(
            DB::table('entry_conditions')
                ->whereIn('entry_id', DB::table('entries')->where('cycle_id', $cycle)->select('id'))
                ->get(['entry_id', 'needs_id', 'kind'])
                ->all(),
        );
    }

    /**
     * @param  array<array-key, \stdClass>  $rows with entry_id, needs_id and kind
     *
     * @return list<Condition>
     */
    public static function asConditions(array $rows): array
    {
        return array_values(
            array_map(
                static fn(\stdClass $c): Condition => new Condition($c->entry_id, $c->needs_id, ConditionKind::from($c->kind)),
                $rows,
            ),
        );
    }

    /**
     * @param  array<array-key, mixed>  $ids
     */
    private static function asArray(array $ids): string
    {
        return '{' . implode(',', array_map(static fn(mixed $id): string => \is_string($id) ? $id : '', $ids)) . '}';
    }

    private static function time(?string $time): ?\DateTimeImmutable
    {
        return null === $time ? null : new \DateTimeImmutable($time);
    }

    /**
     * The cycles of a project that run, the one that ends first at the top.
     *
     * @return Collection<int, Cycle>
     */
    public function running(Project $project): Collection
    {
        return Cycle::query()
            ->where('project_id', $project->id)
            ->where('state', CycleState::Released)
            ->with('build')
            ->orderBy('ends_on')
            ->orderBy('id')
            ->get();
    }
}
