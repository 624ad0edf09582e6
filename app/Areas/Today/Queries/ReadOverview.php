<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Today\Queries;

use Illuminate\Database\Query\Builder;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Cycles\Data\CycleSummary;
use LucidStep\App\Areas\Cycles\Queries\ReadBoard;
use LucidStep\App\Areas\Cycles\Queries\ReadCycle;
use LucidStep\App\Areas\Cycles\Queries\UndecidedEntries;
use LucidStep\App\Areas\Setup\Actions\SaveCalendar;
use LucidStep\App\Areas\Today\Data\Failing;
use LucidStep\App\Areas\Today\Data\OverviewCycle;
use LucidStep\App\Areas\Today\Data\OverviewPage;
use LucidStep\App\Areas\Today\Data\TurnedEntry;
use LucidStep\App\Areas\Today\Data\WalkingNow;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Invitation;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Background\BackgroundWork;
use LucidStep\App\Support\Data\Person;
use LucidStep\App\Support\Time\UtcTime;
use LucidStep\Core\Access\Role;
use LucidStep\Core\Planning\CycleState;
use LucidStep\Core\Planning\Pace;

/**
 * Reads how a project stands, as each role works with it: in a fixed number of queries.
 */
final readonly class ReadOverview
{
    /** So many cycles are told, those due first; and so many lines of the rest. */
    private const CYCLES = 8;

    private const LINES = 20;

    public function __construct(
        private ReadBoard $board,
        private ReadCycle $read,
        private ReadOpenDefects $defects,
        private ReadFirstSteps $steps,
    ) {}

    public function __invoke(Project $project, User $user, Role $role): OverviewPage
    {
        $cycles = $this->read->running($project);
        $first = $cycles->take(self::CYCLES);

        return new OverviewPage(
            $this->cycles($project, array_values($first->all())),
            $cycles->count() - $first->count(),
            $role->leads() ? $this->walking($project) : [],
            $role->leads() ? $this->turned($project) : [],
            Role::Developer === $role ? ($this->defects)($project, $user) : [],
            Role::Admin === $role ? $this->failing($project, $user) : [],
            $role->leads() && $cycles->isEmpty() ? ($this->steps)($project) : null,
            Carbon::now()->toIso8601ZuluString(),
        );
    }

    /**
     * @param  list<Cycle>  $cycles
     *
     * @return list<OverviewCycle>
     */
    private function cycles(Project $project, array $cycles): array
    {
        $ids = array_column($cycles, 'id');
        $counts = $this->board->counts($ids);
        $lately = DB::table('entries')
            ->whereIn('cycle_id', $ids)
            ->whereNotIn('display_state', UndecidedEntries::STATES)
            ->where('display_state_at', '>', Carbon::now()->subDays(Pace::WINDOW))
            ->groupBy('cycle_id')
            ->selectRaw('cycle_id, count(*) as n')
            ->pluck('n', 'cycle_id');
        $held = $this->read->heldIn($cycles);
        $calendar = SaveCalendar::of($project);
        $today = Carbon::now($project->time_zone)->toDateString();

        return array_map(function (Cycle $cycle) use ($counts, $lately, $held, $calendar, $today): OverviewCycle {
            $of = $counts[$cycle->id] ?? [];
            $pace = Pace::of(
                array_sum(array_intersect_key($of, array_flip(UndecidedEntries::STATES))),
                (int) ($lately[$cycle->id] ?? 0),
                $cycle->starts_on->toDateString(),
                $cycle->ends_on->toDateString(),
                $today,
                $calendar,
            );

            return new OverviewCycle(
                CycleSummary::from($cycle, $of),
                \count($held[$cycle->id]),
                $pace->left,
                $pace->daysLeft,
                $pace->walked,
                $pace->needed(),
                $pace->state(),
            );
        }, $cycles);
    }

    /**
     * @return list<WalkingNow>
     */
    private function walking(Project $project): array
    {
        return array_values(
            DB::table('entries')
                ->join('cycles', 'cycles.id', '=', 'cycle_id')
                ->join('cases', 'cases.id', '=', 'entries.case_id')
                ->join('attempts', 'attempts.id', '=', 'open_attempt_id')
                ->join('users', 'users.id', '=', 'tester_id')
                ->where('entries.project_id', $project->id)
                ->where('cycles.state', CycleState::Released->value)
                ->orderByDesc('attempts.started_at')
                ->limit(self::LINES)
                ->select('entries.id', 'tester_id', 'users.name', 'cases.key', 'cases.title', 'attempts.started_at')
                ->selectRaw(
                    '(select count(*) from step_results s join rounds r on r.id = s.round_id where r.attempt_id = attempts.id) as steps',
                )
                ->selectRaw(
                    '(select count(*) from step_results s join rounds r on r.id = s.round_id where r.attempt_id = attempts.id ' .
                        "and s.verdict <> 'not_run') as judged",
                )
                ->get()
                ->map(
                    static fn(\stdClass $w): WalkingNow => new WalkingNow(
                        new Person($w->tester_id, $w->name),
                        $w->id,
                        $w->key,
                        $w->title,
                        UtcTime::time($w->started_at) ?? '',
                        (int) $w->judged,
                        (int) $w->steps,
                    ),
                )
                ->all(),
        );
    }

    /**
     * What turned bad, or good again, since yesterday.
     *
     * @return list<TurnedEntry>
     */
    private function turned(Project $project): array
    {
        $since = Carbon::yesterday($project->time_zone)->utc();

        return array_values(
            DB::table('entries')
                ->join('cycles', 'cycles.id', '=', 'cycle_id')
                ->join('cases', 'cases.id', '=', 'entries.case_id')
                ->leftJoin('attempts', 'attempts.id', '=', 'last_attempt_id')
                ->leftJoin('users', 'users.id', '=', 'tester_id')
                ->leftJoin('configurations', 'configurations.id', '=', 'entries.configuration_id')
                ->where('entries.project_id', $project->id)
                ->where('cycles.state', CycleState::Released->value)
                ->where('display_state_at', '>=', $since)
                ->where(
                    static fn($q) => $q
                        ->whereIn('display_state', ['fail', 'blocked'])
                        ->orWhere(
                            static fn($p) => $p
                                ->where('display_state', 'pass')
                                ->where('attempts_count', '>', 1)
                                ->where(static fn($b) => $b->where(self::before(), '=', 'fail')->orWhere(self::before(), '=', 'blocked')),
                        ),
                )
                ->orderByDesc('display_state_at')
                ->limit(self::LINES)
                ->selectSub(self::before(), 'before')
                ->addSelect([
                    'entries.id',
                    'cases.key',
                    'cases.title',
                    'display_state',
                    'display_state_at',
                    'tester_id',
                    'users.name',
                    'configurations.name as configuration',
                    'cycles.name as cycle',
                ])
                ->get()
                ->map(
                    static fn(\stdClass $e): TurnedEntry => new TurnedEntry(
                        $e->id,
                        $e->key,
                        $e->title,
                        $e->before ?? 'not_run',
                        $e->display_state,
                        null === $e->tester_id ? null : new Person($e->tester_id, $e->name),
                        $e->configuration,
                        $e->cycle,
                        UtcTime::time($e->display_state_at) ?? '',
                    ),
                )
                ->all(),
        );
    }

    /**
     * The verdict of the attempt before the last one.
     */
    private static function before(): Builder
    {
        return DB::table('attempts as earlier')
            ->whereColumn('earlier.entry_id', 'entries.id')
            ->whereColumn('earlier.number', '<', 'attempts.number')
            ->whereNotNull('earlier.verdict')
            ->orderByDesc('earlier.number')
            ->limit(1)
            ->select('earlier.verdict');
    }

    /**
     * @return list<Failing>
     */
    private function failing(Project $project, User $user): array
    {
        $failing = [];
        $mails = Invitation::open()->where('project_id', $project->id)->whereNotNull('failure')->count();
        if ($mails > 0) {
            $failing[] = new Failing(
                1 === $mails ? 'The mail of an invitation did not go.' : "The mails of {$mails} invitations did not go.",
                '/setup/people',
            );
        }
        $imports = DB::table('case_imports')
            ->where('project_id', $project->id)
            ->where('state', 'failed')
            ->where('created_at', '>', Carbon::now()->subDays(Pace::WINDOW))
            ->count();
        if ($imports > 0) {
            $failing[] = new Failing(
                1 === $imports ? 'A file could not be brought in this week.' : "{$imports} files could not be brought in this week.",
                '/casebook/import',
            );
        }
        $standstill = BackgroundWork::standstill();
        if ('' !== $standstill) {
            $failing[] = new Failing($standstill, null);
        }
        $jobs = $user->is_owner ? DB::table('failed_jobs')->count() : 0;
        if ($jobs > 0) {
            $failing[] = new Failing(
                1 === $jobs
                    ? 'A job in the background failed: ./lucid artisan queue:failed tells of it.'
                    : "{$jobs} jobs in the background failed: ./lucid artisan queue:failed lists them.",
                null,
            );
        }

        return $failing;
    }
}
