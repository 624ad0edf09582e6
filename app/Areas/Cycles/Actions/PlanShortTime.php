<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Actions;

use Illuminate\Support\Facades\DB;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Cycles\Data\PlanActResult;
use LucidStep\App\Areas\Cycles\Data\ShortLine;
use LucidStep\App\Areas\Cycles\Data\ShortPlan;
use LucidStep\App\Areas\Cycles\EntryChanges\AssignMany;
use LucidStep\App\Areas\Cycles\Queries\Estimates;
use LucidStep\App\Areas\Cycles\Queries\ReadCycle;
use LucidStep\App\Areas\Cycles\Queries\TesterLookup;
use LucidStep\App\Areas\Cycles\Queries\UndecidedEntries;
use LucidStep\App\Areas\Setup\Queries\ProjectLists;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\Core\Forecast\Duration;
use LucidStep\Core\Planning\AssignableEntry;
use LucidStep\Core\Planning\Assignee;
use LucidStep\Core\Planning\Balance;
use LucidStep\Core\Planning\Candidate;
use LucidStep\Core\Planning\ConditionKind;
use LucidStep\Core\Planning\Conditions;
use LucidStep\Core\Planning\NobodyToAssign;
use LucidStep\Core\Planning\ShortOfTime;
use LucidStep\Core\Planning\TimePlan;
use LucidStep\Core\Planning\TooLittleTime;

/**
 * Short of time: what to walk in the hours that are left, what that leaves out, and the same as order and assignment.
 */
final readonly class PlanShortTime
{
    public function __construct(private BulkEditEntries $acts) {}

    /**
     * @param  int  $minutes for all people together
     * @param  list<string>  $in  entries that must be in
     * @param  list<string>  $out entries that stay out
     */
    public function preview(Cycle $cycle, int $minutes, array $in, array $out): ShortPlan
    {
        [$plan, $candidates, $why] = $this->plan($cycle, $minutes, $in, $out);
        $names = DB::table('entries')
            ->join('cases', 'cases.id', '=', 'case_id')
            ->leftJoin('configurations', 'configurations.id', '=', 'configuration_id')
            ->where('cycle_id', $cycle->id)
            ->get(['entries.id', 'cases.key', 'cases.title', 'configurations.name'])
            ->keyBy('id');
        $line = static fn(string $id): ShortLine => new ShortLine(
            $id,
            $names[$id]->key,
            $names[$id]->title,
            (string) $names[$id]->name,
            $candidates[$id]->seconds,
            round($candidates[$id]->base, 1),
            $why[$id] ?? null,
        );

        return new ShortPlan(
            array_map($line, $plan->order),
            array_map($line, $plan->left),
            $plan->seconds,
            $minutes * 60,
            round($plan->risk(), 4),
            \count($candidates) <= ShortOfTime::EXACT &&
                [] === array_filter($candidates, static fn(Candidate $c): bool => [] !== $c->needs),
        );
    }

    /**
     * Puts what is in first, in the proposed order, and hands it out to the people. What one of them has stays theirs, what
     * is being walked stays with whoever walks it, and what is left out stands behind, whosever it is.
     *
     * @param  list<string>  $in
     * @param  list<string>  $out
     * @param  list<string>  $people
     */
    public function apply(Cycle $cycle, User $user, int $minutes, array $in, array $out, array $people): PlanActResult
    {
        [$plan, $candidates] = $this->plan($cycle, $minutes, $in, $out);
        $members = TesterLookup::of($cycle->project_id, $people, static fn(int $i): string => "people.{$i}");
        $assigned = DB::table('entries')->where('cycle_id', $cycle->id)->whereNotNull('assignee_id')->pluck('assignee_id', 'id');
        $walked = DB::table('entries')->where('cycle_id', $cycle->id)->whereNotNull('open_attempt_id')->pluck('assignee_id', 'id');
        $stays = static fn(string $id): ?string => isset($members[$assigned[$id] ?? ''])
            ? $assigned[$id]
            : (isset($walked[$id])
                ? $walked[$id]
                : null);
        $work = array_map(
            static fn(string $id): AssignableEntry => new AssignableEntry($id, $candidates[$id]->seconds, $stays($id)),
            $plan->order,
        );
        try {
            $given =
                [] === $members
                    ? []
                    : Balance::of(
                        array_values(
                            array_map(
                                static fn(string $id): Assignee => new Assignee($id, max(1, $members[$id]->minutes_per_day)),
                                array_keys($members),
                            ),
                        ),
                        $work,
                        Conditions::of(ReadCycle::conditions($cycle->id)),
                    );
        } catch (NobodyToAssign $e) {
            throw ValidationException::withMessages(['people' => $e->getMessage()]);
        }
        $title = \sprintf(
            'Planned for %s: %d in, %d left out',
            Duration::rounded($minutes * 60_000),
            \count($plan->order),
            \count($plan->left),
        );

        return ($this->acts)($cycle, $user, new AssignMany($given, $title, $plan->order), [...$plan->order, ...$plan->left]);
    }

    /**
     * @param  list<string>  $in
     * @param  list<string>  $out
     *
     * @return array{TimePlan, array<string, Candidate>, array<string, string>} the plan, all open entries, and why some can be none
     */
    private function plan(Cycle $cycle, int $minutes, array $in, array $out): array
    {
        $project = Project::query()->findOrFail($cycle->project_id);
        $weights = array_column((new ProjectLists($project))->items('priority'), 'weight', 'value');
        $rows = DB::table('entries')
            ->join('cases', 'cases.id', '=', 'case_id')
            ->where('cycle_id', $cycle->id)
            ->orderBy('entries.position')
            ->get([
                'entries.id',
                'entries.case_id',
                'display_state',
                'rounds',
                'active_ms',
                'walk_times',
                'estimate_seconds',
                'steps_count',
                'priority',
                'last_attempt_id',
                'cases.key',
            ]);
        $requirements = [];
        foreach (
            DB::table('case_requirements')
                ->whereIn('case_id', $rows->pluck('case_id')->unique())
                ->get()
            as $link
        ) {
            $requirements[$link->case_id][] = $link->requirement_id;
        }
        $fails = $this->fails($cycle);
        $estimates = new Estimates($project->id);
        $shows = $rows->pluck('display_state', 'id');
        $keys = $rows->pluck('key', 'id');
        $undecided = UndecidedEntries::in($cycle)->pluck('entries.id')->flip();
        $needs = $why = [];
        $conditions = Conditions::of(ReadCycle::conditions($cycle->id));
        foreach ($conditions->all as $condition) {
            if (ConditionKind::OnlyIfPassed === $condition->kind && 'pass' !== $shows[$condition->needs]) {
                $needs[$condition->entry][] = $condition->needs;
            }
        }
        $candidates = [];
        foreach ($rows as $row) {
            if (!isset($undecided[$row->id])) {
                continue;
            }
            $seconds = AssignEntries::left(
                $row,
                $estimates->entry($row->walk_times, $row->estimate_seconds, $row->steps_count, $row->rounds),
            );
            $candidates[$row->id] = new Candidate(
                $row->id,
                $seconds,
                Candidate::base((float) ($weights[$row->priority] ?? 1), $fails[$row->case_id] ?? 0),
                $requirements[$row->case_id] ?? [],
                $needs[$row->id] ?? [],
            );
            foreach ($needs[$row->id] ?? [] as $need) {
                if (\in_array($shows[$need], ['fail', 'blocked', 'not_applicable'], true)) {
                    $why[$row->id] = \sprintf('needs the pass of %s, which shows %s', $keys[$need], str_replace('_', ' ', $shows[$need]));
                }
            }
        }
        try {
            $plan = ShortOfTime::plan(array_values($candidates), $minutes * 60, $in, $out, $conditions);
        } catch (TooLittleTime $e) {
            throw ValidationException::withMessages(['minutes' => $e->getMessage()]);
        }
        foreach (array_diff($in, $plan->order) as $id) {
            throw ValidationException::withMessages([
                'in' => \sprintf(
                    '%s cannot be in: %s.',
                    $keys[$id] ?? 'An entry',
                    $why[$id] ?? 'it has a verdict, or what it needs stays out',
                ),
            ]);
        }
        foreach ($out as $id) {
            $why[$id] = 'kept out by hand';
        }

        return [$plan, $candidates, $why];
    }

    /**
     * @return array<string, int> fails among the newest five finished attempts, by case
     */
    private function fails(Cycle $cycle): array
    {
        $rows = DB::select(
            <<<'SQL'
            select case_id, count(*) filter (where verdict = 'fail') as fails from (
                select e.case_id, a.verdict, row_number() over (partition by e.case_id order by a.finished_at desc) as n
                from attempts a join entries e on e.id = a.entry_id
                where a.state = 'finished' and e.case_id in (select case_id from entries where cycle_id = ?)) newest
            where n <= 5 group by case_id
            SQL
            ,
            [$cycle->id],
        );

        return array_map(intval(...), array_column($rows, 'fails', 'case_id'));
    }
}
