<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Queries;

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Areas\Cycles\Actions\AssignEntries;
use LucidStep\App\Areas\Cycles\Actions\Milestones;
use LucidStep\App\Areas\Cycles\Data\CycleDetail;
use LucidStep\App\Areas\Cycles\Data\CyclePlan;
use LucidStep\App\Areas\Cycles\Data\CycleSummary;
use LucidStep\App\Areas\Cycles\Data\CycleSums;
use LucidStep\App\Areas\Cycles\Data\LogEntry;
use LucidStep\App\Areas\Cycles\Data\OrderFault;
use LucidStep\App\Areas\Cycles\Data\PersonLoad;
use LucidStep\App\Areas\Cycles\Data\SignOffLine;
use LucidStep\App\Areas\Cycles\Data\StateChoice;
use LucidStep\App\Areas\Cycles\Data\UndoableAct;
use LucidStep\App\Areas\Cycles\Data\UnwalkedEntry;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Milestone;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Data\ChangeOfField;
use LucidStep\App\Support\Data\Counts;
use LucidStep\App\Support\Data\Person;
use LucidStep\App\Support\Time\UtcTime;
use LucidStep\Core\Planning\Condition;
use LucidStep\Core\Planning\Conditions;
use LucidStep\Core\Planning\CycleState;
use LucidStep\Core\Verdict\Policies;

/**
 * Reads a cycle for its planner, beside the windows of its entries: the same number of queries however many there are.
 */
final readonly class ReadPlan
{
    /** So many entries that stand before what they wait for are named. */
    private const FAULTS = 3;

    public function __construct(private ReadBoard $board) {}

    public function __invoke(Cycle $cycle, bool $mayPlan): CyclePlan
    {
        $project = Project::query()->findOrFail($cycle->project_id);
        [$open, $load] = $this->work($cycle);
        $sums = $this->board->sums($cycle, $project);
        $detail = $this->detail($cycle, $project, $sums);
        [$loads, $capacity] = $this->loads($project, $cycle, $detail->testers, array_diff_key($load, ['' => true]));
        $faults = $this->faults($cycle);

        return new CyclePlan(
            $detail,
            $open,
            $sums->configurations,
            $sums->outdated,
            $loads,
            \array_slice($faults, 0, self::FAULTS),
            \count($faults),
            array_sum(array_column($load, 1)),
            $load[''][1] ?? 0,
            $capacity,
            $this->lastAct($cycle),
            $mayPlan,
        );
    }

    /**
     * What is left to walk, by whom. Entries that take the same by everything estimates know are read as one, with how many
     * there are.
     *
     * @return array{int, array<string, array{int, int}>} entries in all; entries and seconds by person, '' for nobody
     */
    private function work(Cycle $cycle): array
    {
        $estimates = new Estimates($cycle->project_id);
        $load = [];
        $open = 0;
        $alike = ['assignee_id', 'rounds', 'walk_times', 'estimate_seconds', 'steps_count', 'display_state'];
        foreach (
            UndecidedEntries::in($cycle)
                ->join('cases', 'cases.id', '=', 'case_id')
                ->groupBy($alike)
                ->groupByRaw("case when display_state = 'in_progress' then entries.active_ms else 0 end")
                ->get([
                    ...$alike,
                    DB::raw("case when display_state = 'in_progress' then entries.active_ms else 0 end as active_ms"),
                    DB::raw('count(*) as entries'),
                ])
            as $some
        ) {
            $one = $estimates->entry($some->walk_times, $some->estimate_seconds, $some->steps_count, $some->rounds);
            [$entries, $seconds] = $load[$some->assignee_id ?? ''] ?? [0, 0];
            $load[$some->assignee_id ?? ''] = [$entries + $some->entries, $seconds + $some->entries * AssignEntries::left($some, $one)];
            $open += $some->entries;
        }

        return [$open, $load];
    }

    /**
     * The order check of the core, asked about what stands before something it needs.
     *
     * @return list<OrderFault>
     */
    private function faults(Cycle $cycle): array
    {
        $rows = DB::table('entry_conditions')
            ->join('entries as waiting', 'waiting.id', '=', 'entry_id')
            ->join('entries as needed', 'needed.id', '=', 'needs_id')
            ->where('waiting.cycle_id', $cycle->id)
            ->whereColumn('waiting.position', '<', 'needed.position')
            ->get(['entry_id', 'needs_id', 'kind', 'waiting.position as at', 'needed.position as needed_at'])
            ->all();
        $place = array_column($rows, 'at', 'entry_id') + array_column($rows, 'needed_at', 'needs_id');
        asort($place);
        $faults = Conditions::of(ReadCycle::asConditions($rows))->outOfOrder(array_map(strval(...), array_keys($place)));
        $keys =
            [] === $faults
                ? collect()
                : DB::table('entries')
                    ->join('cases', 'cases.id', '=', 'case_id')
                    ->whereIn(
                        'entries.id',
                        array_merge(
                            ...array_map(static fn(Condition $c): array => [$c->entry, $c->needs], \array_slice($faults, 0, self::FAULTS)),
                        ),
                    )
                    ->pluck('cases.key', 'entries.id');

        return array_map(
            static fn(Condition $c): OrderFault => new OrderFault(
                $c->entry,
                (string) ($keys[$c->entry] ?? ''),
                $c->needs,
                (string) ($keys[$c->needs] ?? ''),
                $c->kind->value,
            ),
            $faults,
        );
    }

    /**
     * @param  ?CycleSums  $sums where they were read already
     */
    public function detail(Cycle $cycle, Project $project, ?CycleSums $sums = null): CycleDetail
    {
        [$signOff, $clonedFrom] = $this->around($cycle);
        $people = DB::table('cycle_people')
            ->join('users', 'users.id', '=', 'user_id')
            ->where('cycle_id', $cycle->id)
            ->orderBy('position')
            ->get(['users.id', 'users.name', 'part'])
            ->groupBy('part');
        $persons = static fn(string $part): array => array_values(
            ($people[$part] ?? collect())->map(static fn(object $p): Person => new Person($p->id, $p->name))->all(),
        );
        $state = $cycle->state;
        // What was walked is no draft any more.
        $walked =
            CycleState::Released === $state &&
            ($sums->walked ?? DB::table('entries')->where('cycle_id', $cycle->id)->where('attempts_count', '>', 0)->exists());
        return new CycleDetail(
            CycleSummary::from($cycle, $sums->counts ?? ($this->board->counts([$cycle->id])[$cycle->id] ?? [])),
            null === $cycle->milestone ? null : Milestones::line($cycle->milestone),
            $cycle->phase,
            $cycle->folder,
            $cycle->priority,
            $cycle->build_id,
            $cycle->environment_id,
            $cycle->default_assignee_id,
            $persons('tester'),
            $persons('watcher'),
            $cycle->revision,
            array_values(
                array_map(
                    static fn(CycleState $to): StateChoice => new StateChoice($to->value, $state->needsReason($to)),
                    array_filter(
                        $state->next(Policies::fromArray($project->policies)->cyclesAreReviewed),
                        static fn(CycleState $to): bool => CycleState::Draft !== $to || !$walked,
                    ),
                ),
            ),
            self::signOff($signOff),
            $clonedFrom,
        );
    }

    /**
     * What stands around a cycle, in one query: its build and milestone, which it is given, its newest sign-off with who
     * signed, as JSON, and the key of the cycle it was made from.
     *
     * @return array{?string, ?string} the sign-off and the key
     */
    private function around(Cycle $cycle): array
    {
        $newest = DB::table('sign_offs')
            ->join('users', 'users.id', '=', 'user_id')
            ->whereColumn('cycle_id', 'cycles.id')
            ->orderByDesc('at')
            ->limit(1)
            ->select('sign_offs.*', 'users.name');
        $row = DB::table('cycles')
            ->leftJoin('builds', 'builds.id', '=', 'cycles.build_id')
            ->leftJoin('milestones', 'milestones.id', '=', 'cycles.milestone_id')
            ->leftJoin('cycles as source', 'source.id', '=', 'cycles.cloned_from_id')
            ->leftJoinLateral($newest, 'signed')
            ->where('cycles.id', $cycle->id)
            ->selectRaw(
                'to_jsonb(builds) as build, to_jsonb(milestones) as milestone, source.key as cloned_from,
                case when signed.id is not null then to_jsonb(signed) end as sign_off',
            )
            ->sole();
        foreach (['build' => new Build(), 'milestone' => new Milestone()] as $name => $model) {
            $cycle->setRelation(
                $name,
                null === $row->{$name} ? null : $model->newFromBuilder(json_decode($row->{$name}, true, 8, \JSON_THROW_ON_ERROR)),
            );
        }

        return [$row->sign_off, $row->cloned_from];
    }

    private static function signOff(?string $json): ?SignOffLine
    {
        if (null === $json) {
            return null;
        }
        $sign = json_decode($json, false, 16, \JSON_THROW_ON_ERROR);

        return new SignOffLine(
            $sign->id,
            new Person($sign->user_id, $sign->name),
            UtcTime::time($sign->at) ?? '',
            $sign->note,
            Counts::of((array) $sign->counts),
            array_values(array_map(static fn(object $e): UnwalkedEntry => new UnwalkedEntry(...(array) $e), $sign->unwalked)),
        );
    }

    /**
     * @param  string  $key a cycle's key or id
     */
    public function cycle(string $project, string $key): ?Cycle
    {
        return Cycle::query()
            ->where('project_id', $project)
            ->where(Str::isUuid($key) ? 'id' : 'key', $key)
            ->first();
    }

    /**
     * @return list<LogEntry> the newest first
     */
    public function log(Cycle $cycle): array
    {
        return array_values(
            DB::table('cycle_log')
                ->leftJoin('users', 'users.id', '=', 'actor_id')
                ->leftJoin('plan_acts', 'plan_acts.id', '=', 'act_id')
                ->where('cycle_log.cycle_id', $cycle->id)
                ->orderByDesc('cycle_log.id')
                ->limit(500)
                ->get([
                    'cycle_log.id',
                    'at',
                    'text',
                    'reason',
                    'changes',
                    'users.id as user_id',
                    'users.name',
                    'plan_acts.id as act',
                    'undone_at',
                ])
                ->map(
                    static fn(object $l): LogEntry => new LogEntry(
                        $l->id,
                        UtcTime::time($l->at) ?? '',
                        null === $l->user_id ? null : new Person($l->user_id, $l->name),
                        $l->text,
                        $l->reason,
                        null === $l->undone_at ? $l->act : null,
                        self::changes($l->changes),
                    ),
                )
                ->all(),
        );
    }

    /**
     * @return list<ChangeOfField>
     */
    public static function changes(?string $json): array
    {
        $list = null === $json ? [] : json_decode($json, true, 4, \JSON_THROW_ON_ERROR);

        return array_values(
            array_map(
                static fn(array $c): ChangeOfField => new ChangeOfField((string) $c['field'], (string) $c['from'], (string) $c['to']),
                (array) $list,
            ),
        );
    }

    /**
     * @param  list<Person>  $people the testers of the cycle, in its order
     * @param  array<string, array{int, int}>  $load entries and seconds by person
     *
     * @return array{list<PersonLoad>, int} everybody who has part or work, and the capacity of the testers in seconds
     */
    private function loads(Project $project, Cycle $cycle, array $people, array $load): array
    {
        $testers = array_flip(array_column($people, 'id'));
        $loads = [];
        $sum = 0;
        $known = [];
        foreach (
            Membership::query()
                ->join('users', 'users.id', '=', 'user_id')
                ->where('project_id', $project->id)
                ->whereIn('user_id', array_keys($testers + $load))
                ->get(['memberships.*', 'users.name'])
                ->sortBy(static fn(Membership $m): string => \sprintf('%05d %s', $testers[$m->user_id] ?? 99999, $m->getAttribute('name')))
            as $member
        ) {
            $known[$member->user_id] = true;
            if (!$member->role->records()) {
                continue;
            }
            $days = AssignEntries::days($project, $cycle, $member);
            $capacity = $days * $member->minutes_per_day * 60;
            $sum += isset($testers[$member->user_id]) || [] === $testers ? $capacity : 0;
            [$entries, $seconds] = $load[$member->user_id] ?? [0, 0];
            $loads[] = new PersonLoad(
                $member->user_id,
                (string) $member->getAttribute('name'),
                $member->role->value,
                $entries,
                $seconds,
                $capacity,
                $days,
                $member->minutes_per_day,
                isset($testers[$member->user_id]),
            );
        }
        // Whoever left the project keeps what is theirs until somebody else gets it.
        $gone = array_diff_key($load, $known);
        $names = [] === $gone ? [] : DB::table('users')->whereIn('id', array_keys($gone))->pluck('name', 'id')->all();
        foreach ($gone as $id => [$entries, $seconds]) {
            $loads[] = new PersonLoad($id, (string) ($names[$id] ?? ''), 'left', $entries, $seconds, 0, 0, 0, false);
        }

        return [$loads, $sum];
    }

    private function lastAct(Cycle $cycle): ?UndoableAct
    {
        $act = DB::table('plan_acts')
            ->join('users', 'users.id', '=', 'actor_id')
            ->where('cycle_id', $cycle->id)
            ->whereNull('undone_at')
            ->orderByDesc('plan_acts.created_at')
            ->orderByDesc('plan_acts.id')
            ->first(['plan_acts.id', 'title', 'users.id as user_id', 'users.name', 'plan_acts.created_at']);

        return null === $act
            ? null
            : new UndoableAct($act->id, $act->title, new Person($act->user_id, $act->name), UtcTime::time($act->created_at) ?? '');
    }
}
