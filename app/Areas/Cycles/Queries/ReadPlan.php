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
use LucidStep\App\Areas\Cycles\Data\LogEntry;
use LucidStep\App\Areas\Cycles\Data\OrderFault;
use LucidStep\App\Areas\Cycles\Data\PersonLoad;
use LucidStep\App\Areas\Cycles\Data\PlanCondition;
use LucidStep\App\Areas\Cycles\Data\PlanLine;
use LucidStep\App\Areas\Cycles\Data\Reason;
use LucidStep\App\Areas\Cycles\Data\SignOffLine;
use LucidStep\App\Areas\Cycles\Data\StateChoice;
use LucidStep\App\Areas\Cycles\Data\UndoableAct;
use LucidStep\App\Areas\Cycles\Data\UnwalkedEntry;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Data\ChangeOfField;
use LucidStep\App\Support\Data\Counts;
use LucidStep\App\Support\Data\Person;
use LucidStep\App\Support\Time\UtcTime;
use LucidStep\Core\Casebook\Review;
use LucidStep\Core\Planning\Condition;
use LucidStep\Core\Planning\CycleState;
use LucidStep\Core\Verdict\Policies;

/**
 * Reads a cycle for its planner: rows and not models, since there may be thousands; the same number of queries for all.
 */
final readonly class ReadPlan
{
    public function __construct(private ReadCycle $read, private ReadBoard $board) {}

    public function __invoke(Cycle $cycle, bool $mayPlan): CyclePlan
    {
        $project = Project::query()->findOrFail($cycle->project_id);
        $view = $this->read->view($cycle);
        $approvedOnly = Policies::fromArray($project->policies)->onlyApprovedCases;
        $estimates = new Estimates($project->id);
        $conditions = $view->conditions();
        $lines = $order = $load = [];
        $left = $unassigned = 0;
        foreach ($this->rows($cycle) as $row) {
            $order[] = $row->id;
            $readiness = $view->readiness($row->id);
            $seconds = $estimates->entry($row->walk_times, $row->estimate_seconds, $row->steps_count, $row->rounds);
            if ('done' !== $readiness->is) {
                $open = AssignEntries::left($row, $seconds);
                $left += $open;
                if (null === $row->assignee_id) {
                    $unassigned += $open;
                } else {
                    $load[$row->assignee_id] = [($load[$row->assignee_id][0] ?? 0) + 1, ($load[$row->assignee_id][1] ?? 0) + $open];
                }
            }
            $newest = Review::walked($row->version_id, $row->approved_version_id, $approvedOnly);
            $lines[] = new PlanLine(
                $row->id,
                $row->position,
                $row->case_id,
                $row->key,
                $row->title,
                $row->priority,
                $row->configuration_id,
                $row->assignee_id,
                $row->display_state,
                $row->previous_verdict,
                $readiness->is,
                array_map(Reason::from(...), [...$readiness->reasons, ...$readiness->warnings]),
                $row->walking_id,
                $seconds,
                $row->rounds,
                UtcTime::time($row->not_before),
                UtcTime::time($row->not_after),
                array_map(
                    static fn(Condition $c): PlanCondition => new PlanCondition($c->needs, $c->kind->value),
                    $conditions->on($row->id),
                ),
                $view->stoppedBy($row->id),
                $newest !== $row->case_version_id,
                null !== $row->binned_at ? 'in the bin' : ('retired' === $row->state ? 'retired' : null),
                $row->handover_note,
                $row->attempts_count > 0,
            );
        }
        [$loads, $capacity] = $this->loads($project, $cycle, $load);

        return new CyclePlan(
            $this->detail($cycle, $project),
            $lines,
            $loads,
            array_map(
                static fn(Condition $c): OrderFault => new OrderFault($c->entry, $c->needs, $c->kind->value),
                $conditions->outOfOrder($order),
            ),
            $left,
            $unassigned,
            $capacity,
            $this->lastAct($cycle),
            $mayPlan,
        );
    }

    public function detail(Cycle $cycle, Project $project): CycleDetail
    {
        $cycle->loadMissing('build', 'milestone');
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
            DB::table('entries')->where('cycle_id', $cycle->id)->where('attempts_count', '>', 0)->exists();
        $sign = DB::table('sign_offs')
            ->join('users', 'users.id', '=', 'user_id')
            ->where('cycle_id', $cycle->id)
            ->orderByDesc('at')
            ->first(['sign_offs.*', 'users.name']);

        return new CycleDetail(
            CycleSummary::from($cycle, $this->board->counts([$cycle->id])[$cycle->id] ?? []),
            null === $cycle->milestone ? null : Milestones::line($cycle->milestone),
            $cycle->phase,
            $cycle->folder,
            $cycle->priority,
            $cycle->build_id,
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
            null === $sign
                ? null
                : new SignOffLine(
                    $sign->id,
                    new Person($sign->user_id, $sign->name),
                    UtcTime::time($sign->at) ?? '',
                    $sign->note,
                    Counts::of((array) json_decode($sign->counts, true)),
                    array_values(
                        array_map(static fn(array $e): UnwalkedEntry => new UnwalkedEntry(...$e), json_decode($sign->unwalked, true)),
                    ),
                ),
            null === $cycle->cloned_from_id ? null : Cycle::query()->whereKey($cycle->cloned_from_id)->value('key'),
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
     * @return iterable<\stdClass>
     */
    private function rows(Cycle $cycle): iterable
    {
        return DB::table('entries')
            ->join('cases', 'cases.id', '=', 'case_id')
            ->leftJoin('attempts', 'attempts.id', '=', 'open_attempt_id')
            ->where('cycle_id', $cycle->id)
            ->orderBy('entries.position')
            ->get([
                'entries.id',
                'entries.position',
                'case_id',
                'case_version_id',
                'entries.configuration_id',
                'assignee_id',
                'display_state',
                'previous_verdict',
                'rounds',
                'not_before',
                'not_after',
                'handover_note',
                'attempts_count',
                'entries.active_ms',
                'attempts.tester_id as walking_id',
                'cases.key',
                'cases.title',
                'cases.priority',
                'cases.state',
                'cases.binned_at',
                'cases.version_id',
                'cases.approved_version_id',
                'walk_times',
                'estimate_seconds',
                'steps_count',
            ]);
    }

    /**
     * @param  array<string, array{int, int}>  $load entries and seconds by person
     *
     * @return array{list<PersonLoad>, int} everybody who has part or work, and the capacity of the testers in seconds
     */
    private function loads(Project $project, Cycle $cycle, array $load): array
    {
        $testers = DB::table('cycle_people')
            ->where('cycle_id', $cycle->id)
            ->where('part', 'tester')
            ->orderBy('position')
            ->pluck('user_id')
            ->flip();
        $loads = [];
        $sum = 0;
        $known = [];
        foreach (
            Membership::query()
                ->where('project_id', $project->id)
                ->with('user')
                ->get()
                ->sortBy(static fn(Membership $m): string => \sprintf('%05d %s', $testers[$m->user_id] ?? 99999, $m->user->name))
            as $member
        ) {
            $known[$member->user_id] = true;
            if (!$member->role->records() || (!isset($testers[$member->user_id]) && !isset($load[$member->user_id]))) {
                continue;
            }
            $capacity = AssignEntries::capacity($project, $cycle, $member);
            $sum += isset($testers[$member->user_id]) || $testers->isEmpty() ? $capacity : 0;
            [$entries, $seconds] = $load[$member->user_id] ?? [0, 0];
            $loads[] = new PersonLoad(
                $member->user_id,
                $member->user->name,
                $member->role->value,
                $entries,
                $seconds,
                $capacity,
                AssignEntries::days($project, $cycle, $member),
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
