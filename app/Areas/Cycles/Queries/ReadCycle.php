<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Queries;

use Illuminate\Database\Eloquent\Collection;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Cycles\Data\Reason;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\Role;
use LucidStep\App\Models\User;
use LucidStep\Core\Execution\CycleView;
use LucidStep\Core\Execution\EntryFacts;
use LucidStep\Core\Execution\HeldReason;
use LucidStep\Core\Execution\Readiness;
use LucidStep\Core\Planning\Condition;
use LucidStep\Core\Planning\ConditionKind;
use LucidStep\Core\Planning\Conditions;
use LucidStep\Core\Verdict\EntryState;
use LucidStep\Core\Verdict\Policies;

/**
 * Reads cycles the way the rules look at them: which entries are ready, held or done, and which is next.
 */
final class ReadCycle
{
    /**
     * A cycle as the rules see it now. Three queries, however many entries.
     */
    public function view(Cycle $cycle): CycleView
    {
        return $this->views(Collection::make([$cycle]))[$cycle->id];
    }

    /**
     * Several cycles as the rules see them now. Three queries, however many.
     *
     * @param  Collection<int, Cycle>  $cycles
     *
     * @return array<string, CycleView> by cycle id
     */
    public function views(Collection $cycles): array
    {
        return $this->read($cycles);
    }

    /**
     * Whether one entry is ready, held or done: as its whole cycle would say, from no more than what it waits for. Three
     * queries, however large the cycle.
     */
    public function readiness(Entry $entry): Readiness
    {
        $view = $this->read(Collection::make([$entry->cycle]), $entry->id)[$entry->cycle_id];

        return $view->readiness($entry->id);
    }

    /**
     * The entry a person walks next: none where they do not record, one of nobody's where opening takes it.
     */
    public static function next(CycleView $view, User $user, Role $role, Policies $policies): ?string
    {
        return $role->records() ? $view->next($user->id, null, $policies->openingTakes)?->id : null;
    }

    /**
     * @param  Collection<int, Cycle>  $cycles
     * @param  ?string  $only an entry: it and what it waits for, instead of all
     *
     * @return array<string, CycleView> by cycle id
     */
    private function read(Collection $cycles, ?string $only = null): array
    {
        $rows = DB::table('entries')
            ->join('cases', 'cases.id', '=', 'entries.case_id')
            ->leftJoin('attempts', 'attempts.id', '=', 'entries.open_attempt_id')
            ->whereIn('entries.cycle_id', $cycles->modelKeys())
            ->when(
                null !== $only,
                static fn($q) => $q->whereRaw(
                    'entries.id in (select ?::uuid union select needs_id from entry_conditions where entry_id = ? ' .
                        'union select cause_id from entry_stops where entry_id = ?)',
                    [$only, $only, $only],
                ),
            )
            ->orderBy('entries.position')
            ->get([
                'entries.id',
                'entries.cycle_id',
                'cases.key',
                'entries.display_state',
                'entries.previous_verdict',
                'entries.assignee_id',
                'attempts.tester_id as open_with',
                'entries.not_before',
                'entries.not_after',
            ])
            ->groupBy('cycle_id');
        $stops = [];
        foreach (
            DB::table('entry_stops')
                ->join('entries', 'entries.id', '=', 'entry_stops.entry_id')
                ->whereIn('entries.cycle_id', $cycles->modelKeys())
                ->when($only, static fn($q) => $q->whereIn('entry_id', $rows->flatten(1)->pluck('id')))
                ->get(['entry_id', 'cause_id'])
            as $stop
        ) {
            $stops[$stop->entry_id][] = $stop->cause_id;
        }
        $conditions = DB::table('entry_conditions')
            ->join('entries', 'entries.id', '=', 'entry_conditions.entry_id')
            ->whereIn('entries.cycle_id', $cycles->modelKeys())
            ->when($only, static fn($q, string $id) => $q->where('entry_id', $id))
            ->get(['entry_id', 'needs_id', 'kind', 'entries.cycle_id'])
            ->groupBy('cycle_id');
        $views = [];
        foreach ($cycles as $cycle) {
            $views[$cycle->id] = new CycleView(
                array_values(
                    ($rows[$cycle->id] ?? collect())
                        ->map(
                            static fn(object $row): EntryFacts => new EntryFacts(
                                $row->id,
                                $row->key,
                                EntryState::stored($row->display_state, $row->previous_verdict, isset($stops[$row->id])),
                                $row->assignee_id,
                                $row->open_with,
                                self::time($row->not_before),
                                self::time($row->not_after),
                                $stops[$row->id] ?? [],
                            ),
                        )
                        ->all(),
                ),
                Conditions::of(self::asConditions(($conditions[$cycle->id] ?? collect())->all())),
                Carbon::now()->toDateTimeImmutable(),
                $cycle->conditions_hold,
            );
        }

        return $views;
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
     * @param  list<HeldReason>  $reasons
     *
     * @return list<Reason>
     */
    public function reasons(array $reasons): array
    {
        return array_map(Reason::from(...), $reasons);
    }

    private static function time(?string $time): ?\DateTimeImmutable
    {
        return null === $time ? null : new \DateTimeImmutable($time);
    }
}
