<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Cycles\Data\CycleBoard;
use LucidStep\App\Areas\Cycles\Data\CycleSummary;
use LucidStep\App\Areas\Cycles\Data\EntryLine;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\Role;
use LucidStep\App\Models\User;
use LucidStep\Core\Planning\CycleState;
use LucidStep\Core\Verdict\Policies;

/**
 * Reads cycles for their boards: a fixed number of queries, however many entries.
 */
final readonly class ReadBoard
{
    public const WITH = ['case', 'configuration', 'assignee', 'retestBy', 'openAttempt.tester'];

    public function __construct(private ReadCycle $read) {}

    /**
     * @param  bool  $planned whether those still being planned are among them: only leads see those
     *
     * @return list<CycleSummary>
     */
    public function cycles(Project $project, bool $planned): array
    {
        $cycles = Cycle::query()
            ->where('project_id', $project->id)
            ->when(!$planned, static fn($q) => $q->whereNotIn('state', [CycleState::Draft, CycleState::InReview]))
            ->with('build')
            ->orderByDesc('ends_on')
            ->orderBy('id')
            ->get();
        $counts = $this->counts(array_values($cycles->modelKeys()));

        return array_values($cycles->map(static fn(Cycle $c): CycleSummary => CycleSummary::from($c, $counts[$c->id] ?? []))->all());
    }

    public function board(Cycle $cycle, User $user, Role $role): CycleBoard
    {
        $cycle->load('build', 'project');
        $policies = Policies::fromArray($cycle->project->policies);
        $view = $this->read->view($cycle);
        $entries = $this->rows($cycle);
        $estimates = new Estimates($cycle->project_id);

        return new CycleBoard(
            CycleSummary::from($cycle, $this->counts([$cycle->id])[$cycle->id] ?? []),
            array_values(
                array_map(
                    static fn(\stdClass $e): EntryLine => EntryLine::fromRow(
                        $e,
                        $view->readiness($e->id),
                        $policies->onlyApprovedCases,
                        $estimates,
                    ),
                    $entries,
                ),
            ),
            CycleState::Released === $cycle->state ? ReadCycle::next($view, $user, $role, $policies) : null,
        );
    }

    /**
     * Rows and not models: a cycle may have ten thousand.
     *
     * @return array<int, \stdClass>
     */
    private function rows(Cycle $cycle): array
    {
        return DB::table('entries')
            ->join('cases', 'cases.id', '=', 'case_id')
            ->leftJoin('configurations', 'configurations.id', '=', 'configuration_id')
            ->leftJoin('users as assignee', 'assignee.id', '=', 'assignee_id')
            ->leftJoin('users as retester', 'retester.id', '=', 'retest_by_id')
            ->leftJoin('attempts', 'attempts.id', '=', 'open_attempt_id')
            ->leftJoin('users as walker', 'walker.id', '=', 'attempts.tester_id')
            ->where('cycle_id', $cycle->id)
            ->orderBy('entries.position')
            ->get([
                'entries.id',
                'cycle_id',
                'entries.position',
                'cases.key',
                'cases.title',
                'cases.priority',
                'cases.estimate_seconds',
                'walk_times',
                'steps_count',
                'rounds',
                'not_before',
                'not_after',
                'entries.configuration_id',
                'configurations.name as configuration',
                'assignee_id',
                'assignee.name as assignee',
                'display_state',
                'previous_verdict',
                'retest_reason',
                'retest_by_id',
                'retester.name as retester',
                'attempts.tester_id as walker_id',
                'walker.name as walker',
                'open_attempt_id',
                'last_attempt_id',
                'attempts_count',
                'defects_count',
                'entries.active_ms',
                'display_state_at',
                'cases.binned_at',
                'handover_note',
                'look_asked_at',
                'look_note',
                'case_version_id',
                'cases.version_id',
                'cases.approved_version_id',
            ])
            ->all();
    }

    /**
     * Entries by what they show.
     *
     * @param  list<string>  $cycles
     *
     * @return array<string, array<string, int>> by cycle id
     */
    public function counts(array $cycles): array
    {
        $counts = [];
        foreach (
            DB::table('entries')
                ->whereIn('cycle_id', $cycles)
                ->groupBy('cycle_id', 'display_state')
                ->get(['cycle_id', 'display_state', DB::raw('count(*) as n')])
            as $row
        ) {
            $counts[$row->cycle_id][$row->display_state] = (int) $row->n;
        }

        return $counts;
    }
}
