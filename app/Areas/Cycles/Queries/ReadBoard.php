<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Queries;

use Illuminate\Database\Eloquent\Collection;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Cycles\Data\CycleBoard;
use LucidStep\App\Areas\Cycles\Data\CycleSummary;
use LucidStep\App\Areas\Cycles\Data\CycleSums;
use LucidStep\App\Areas\Cycles\Data\TrailMark;
use LucidStep\App\Areas\Cycles\Data\Walker;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Access\PlannedCycles;
use LucidStep\App\Support\Data\Named;
use LucidStep\App\Support\Data\Person;
use LucidStep\Core\Access\Role;
use LucidStep\Core\Execution\CondensedTrail;
use LucidStep\Core\Execution\TrailRun;
use LucidStep\Core\Planning\CycleState;
use LucidStep\Core\Verdict\Policies;

/**
 * Reads cycles for their boards: a fixed number of queries, however many entries.
 */
final readonly class ReadBoard
{
    /** A trail of so many entries is shown mark by mark. */
    private const LONGEST = 64;

    /** At most so many marks and runs of it are told. */
    private const MARKS = 240;

    /** At most so many who walk now are told. */
    private const WALKERS = 50;

    public function __construct(private ReadCycle $read) {}

    /**
     * @param  bool  $planned whether those still being planned are among them: only leads see those
     *
     * @return list<CycleSummary>
     */
    public function cycles(Project $project, bool $planned): array
    {
        $query = Cycle::query()->where('project_id', $project->id);
        PlannedCycles::without($query, $planned);
        $cycles = $query->with('build')->orderByDesc('ends_on')->orderBy('id')->get();
        $counts = $this->counts(array_values($cycles->modelKeys()));

        return array_values($cycles->map(static fn(Cycle $c): CycleSummary => CycleSummary::from($c, $counts[$c->id] ?? []))->all());
    }

    public function board(Cycle $cycle, User $user, Role $role): CycleBoard
    {
        $cycle->load('build', 'project');
        $cycles = Collection::make([$cycle]);
        $held = array_flip($this->read->held($cycle));
        $released = CycleState::Released === $cycle->state;
        $next = $released ? $this->read->next($cycles, $user, $role, Policies::fromArray($cycle->project->policies)) : [];
        $sums = $this->sums($cycle, $cycle->project);

        return new CycleBoard(
            CycleSummary::from($cycle, $sums->counts),
            $this->trail($cycle, $held, $sums->configurations),
            array_values(
                DB::table('entries')
                    ->where('cycle_id', $cycle->id)
                    ->whereNotNull('open_attempt_id')
                    ->join('cases', 'cases.id', '=', 'case_id')
                    ->join('attempts', 'attempts.id', '=', 'open_attempt_id')
                    ->join('users', 'users.id', '=', 'tester_id')
                    ->orderBy('entries.position')
                    ->limit(self::WALKERS)
                    ->get(['entries.id', 'tester_id', 'users.name', 'cases.key'])
                    ->map(static fn(\stdClass $w): Walker => new Walker(new Person($w->tester_id, $w->name), $w->key, $w->id))
                    ->all(),
            ),
            array_map(static fn(Named $n): Person => new Person($n->id, $n->name), self::named('users', $sums->assignees, 'name')),
            $sums->configurations,
            \count($held),
            $sums->outdated,
            $sums->activeMs,
            $next[$cycle->id] ?? null,
        );
    }

    /**
     * What all entries of a cycle make together, read once.
     */
    public function sums(Cycle $cycle, Project $project): CycleSums
    {
        $newest = EntryLines::newestVersion($project);
        $counts = $assignees = $configurations = [];
        $outdated = $active = 0;
        $walked = false;
        foreach (
            DB::select(
                "select sums.*, configurations.name as configuration, configurations.position from (
                    select display_state, assignee_id, configuration_id, count(*) as entries, sum(entries.active_ms) as active,
                        bool_or(attempts_count > 0) as walked,
                        count(*) filter (where entries.case_version_id <> {$newest}) as outdated
                    from entries join cases on cases.id = case_id where cycle_id = ? group by 1, 2, 3
                ) as sums left join configurations on configurations.id = configuration_id order by configurations.position",
                [$cycle->id],
            )
            as $some
        ) {
            $counts[$some->display_state] = ($counts[$some->display_state] ?? 0) + $some->entries;
            $assignees[] = $some->assignee_id;
            if (null !== $some->configuration_id) {
                $configurations[$some->configuration_id] ??= new Named($some->configuration_id, $some->configuration);
            }
            $outdated += $some->outdated;
            $active += $some->active;
            $walked = $walked || $some->walked;
        }

        return new CycleSums(
            $counts,
            array_values(array_unique(array_filter($assignees))),
            array_values($configurations),
            $outdated,
            $active,
            $walked,
        );
    }

    /**
     * @param  list<?string>  $ids
     *
     * @return list<Named>
     */
    private static function named(string $table, array $ids, string $order): array
    {
        return array_values(
            DB::table($table)
                ->whereIn('id', array_filter(array_unique($ids)))
                ->orderBy($order)
                ->get(['id', 'name'])
                ->map(static fn(\stdClass $n): Named => new Named($n->id, $n->name))
                ->all(),
        );
    }

    /**
     * @param  array<string, int>  $held by entry
     * @param  list<Named>  $configurations
     *
     * @return list<TrailMark>
     */
    private function trail(Cycle $cycle, array $held, array $configurations): array
    {
        $ids = array_column($configurations, 'id');
        $row = DB::selectOne(
            <<<'SQL'
            select string_agg(position::text, ',') as positions, string_agg(shown, ',') as shown,
                string_agg(of::text, ',') as groups
            from (select position, case when ? > 1 then coalesce(array_position(?::uuid[], configuration_id), 0) end as of,
                    case when display_state = 'not_run' and id = any(?::uuid[]) then 'held' else display_state end as shown
                from entries where cycle_id = ? order by position) as entry
            SQL
            ,
            [\count($ids), '{' . implode(',', $ids) . '}', '{' . implode(',', array_keys($held)) . '}', $cycle->id],
        );
        if (null === $row?->positions) {
            return [];
        }
        $positions = explode(',', $row->positions);
        $shown = explode(',', $row->shown);
        $groups = null === $row->groups ? [] : explode(',', $row->groups);
        $runs = CondensedTrail::of(self::marks($positions, $shown, $groups), self::LONGEST);
        if (\count($runs) > self::MARKS && [] !== $groups) {
            // Where configurations take turns, their gaps would leave a mark for each entry.
            $runs = CondensedTrail::of(self::marks($positions, $shown, []), self::LONGEST);
        }
        $runs = \array_slice($runs, 0, self::MARKS);
        $names = DB::table('entries')
            ->join('cases', 'cases.id', '=', 'case_id')
            ->where('cycle_id', $cycle->id)
            ->whereIn('entries.position', array_map(static fn(TrailRun $r): int => (int) $r->first, $runs))
            ->get(['entries.id', 'entries.position', 'cases.key', 'cases.title'])
            ->keyBy('position');

        return array_map(static function (TrailRun $run) use ($names, $configurations): TrailMark {
            $e = $names[(int) $run->first];

            return new TrailMark(
                $e->id,
                $run->shown,
                1 === $run->count ? "{$e->position}. {$e->key} {$e->title}" : '',
                ($configurations[(int) $run->group - 1] ?? new Named('', ''))->name,
                $run->count,
            );
        }, $runs);
    }

    /**
     * @param  list<string>  $positions
     * @param  list<string>  $shown
     * @param  list<string>  $groups empty: all of one
     *
     * @return \Generator<int, array{string, string, string}>
     */
    private static function marks(array $positions, array $shown, array $groups): \Generator
    {
        foreach ($positions as $i => $position) {
            yield [$position, $shown[$i], $groups[$i] ?? ''];
        }
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
