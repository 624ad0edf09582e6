<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Queries;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Sessions\Data\FigureRow;
use LucidStep\App\Areas\Sessions\Data\SessionFigures;
use LucidStep\App\Areas\Sessions\Data\Unexplored;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\TestSession;
use LucidStep\App\Support\Data\Named;
use LucidStep\Core\Defects\DefectState;
use LucidStep\Core\Sessions\AreaFigures;
use LucidStep\Core\Sessions\ExploredSession;
use LucidStep\Core\Sessions\LineKind;
use LucidStep\Core\Sessions\SessionState;

/**
 * Reads what the sessions of a project that are over come to, and what nobody explored since a build (rules of the job, 8).
 */
final class ReadFigures
{
    /** What figures are by. */
    public const BY = ['folder', 'label', 'requirement', 'build', 'person', 'month'];

    /** So many areas are proposed. */
    private const PROPOSED = 20;

    /**
     * @param  value-of<self::BY>  $by
     * @param  ?Carbon  $from  only what was begun from then on
     * @param  ?Carbon  $until and before then
     */
    public function __invoke(Project $project, string $by, ?Carbon $from = null, ?Carbon $until = null): SessionFigures
    {
        $builds = $this->builds($project);
        $newest = array_key_last($builds);
        $today = Carbon::now($project->time_zone)->startOfDay();
        $areas = [];
        $all = [];
        foreach ($this->sessions($project, $from, $until) as [$session, $counts]) {
            $explored = $this->explored($session, $counts, $builds, $project->time_zone);
            $all[] = $explored;
            [$id, $name] = $this->area($session, $by, $project->time_zone);
            $areas[$id] ??= ['name' => $name, 'sessions' => []];
            $areas[$id]['sessions'][] = $explored;
        }
        foreach (null === $from && null === $until ? $this->known($project, $by) : [] as $id => $name) {
            $areas[$id] ??= ['name' => $name, 'sessions' => []];
        }
        $rows = [];
        foreach ($areas as $id => ['name' => $name, 'sessions' => $of]) {
            $rows[] = $this->row((string) $id, $name, $of, $builds, $today);
        }
        usort($rows, static fn(FigureRow $a, FigureRow $b): int => strnatcasecmp($a->name, $b->name));

        $all = $this->row('', 'All', $all, $builds, $today);

        return new SessionFigures($by, $rows, $all, null === $newest ? null : Named::from($builds[$newest]));
    }

    /**
     * Areas without a session on the newest build: those never explored first, then those longest ago, of those alike the one with the
     * most open defects.
     *
     * @return list<Unexplored>
     */
    public function unexplored(Project $project): array
    {
        $builds = $this->builds($project);
        if ([] === $builds) {
            return [];
        }
        $newest = $builds[array_key_last($builds)]->id;
        $found = $folders = [];
        foreach (['folder' => $this->inFolders($project, $newest), 'label' => $this->underLabels($project, $newest)] as $kind => $inside) {
            $named = [];
            foreach ($this($project, $kind)->rows as $row) {
                $of = $inside[$row->id] ?? null;
                $named[] = $name = mb_strtolower($row->name);
                $isTwice = 'label' === $kind && \in_array($name, $folders, true);
                // Where there is nothing, there is nothing to explore.
                if ('' !== $row->id && null !== $of && 0 !== $row->builds_since && !$isTwice) {
                    $found[] = new Unexplored(
                        $kind,
                        $row->id,
                        $row->name,
                        $row->newest_build,
                        $row->builds_since,
                        $row->days_since,
                        ...$of,
                    );
                }
            }
            $folders = $named;
        }
        $rank = static fn(Unexplored $u): array => [$u->builds_since ?? \PHP_INT_MAX, $u->open_defects, $u->cases - $u->walked];
        usort($found, static fn(Unexplored $a, Unexplored $b): int => $rank($b) <=> $rank($a));

        return \array_slice($found, 0, self::PROPOSED);
    }

    /**
     * @param  list<ExploredSession>  $of
     * @param  array<int, Build>  $builds by place
     */
    private function row(string $id, string $name, array $of, array $builds, Carbon $today): FigureRow
    {
        return FigureRow::of(
            $id,
            $name,
            AreaFigures::of($of, (int) array_key_last($builds), $today->toDateTimeImmutable()),
            array_sum(array_map(static fn(ExploredSession $s): int => $s->testingMs, $of)),
            array_map(static fn(Build $b): string => $b->name, $builds),
        );
    }

    /**
     * @return array<int, Build> by place, from 1
     */
    private function builds(Project $project): array
    {
        $builds = [];
        foreach (Build::query()->where('project_id', $project->id)->orderBy('position')->orderBy('id')->get() as $i => $build) {
            $builds[$i + 1] = $build;
        }

        return $builds;
    }

    /**
     * @return iterable<array{TestSession, array{int, int}}> each with its issues and questions
     */
    private function sessions(Project $project, ?Carbon $from, ?Carbon $until): iterable
    {
        $found = TestSession::query()
            ->where('project_id', $project->id)
            ->whereIn('state', [SessionState::Stopped, SessionState::Debriefed])
            ->when(null !== $from, static fn(Builder $q) => $q->where('started_at', '>=', $from))
            ->when(null !== $until, static fn(Builder $q) => $q->where('started_at', '<', $until))
            ->with('charter.folder', 'charter.requirement', 'tester', 'build')
            ->withCount([
                'lines as issues' => static fn(Builder $q) => $q->where('kind', LineKind::Issue)->whereNull('removed_at'),
                'lines as questions' => static fn(Builder $q) => $q->where('kind', LineKind::Question)->whereNull('removed_at'),
            ]);
        foreach ($found->lazyById(500) as $session) {
            yield [$session, [(int) $session->getAttribute('issues'), (int) $session->getAttribute('questions')]];
        }
    }

    /**
     * @param  array{int, int}  $counts
     * @param  array<int, Build>  $builds
     */
    private function explored(TestSession $session, array $counts, array $builds, string $zone): ExploredSession
    {
        $ended = $session->stopped_at ?? $session->started_at;
        $shares = $session->shares($ended->getTimestampMs());
        $place = null;
        foreach ($builds as $at => $build) {
            $place = $build->id === $session->build_id ? $at : $place;
        }

        return new ExploredSession(
            $place,
            $ended->copy()->setTimezone($zone)->toDateTimeImmutable()->setTime(0, 0),
            $session->clock()->at($ended->getTimestampMs()),
            $shares->focus['charter'],
            $shares->work['testing'],
            ...$counts,
        );
    }

    /**
     * @return array{string, string} id and name
     */
    private function area(TestSession $session, string $by, string $zone): array
    {
        $charter = $session->charter;
        $month = $session->started_at->copy()->setTimezone($zone);

        return match ($by) {
            'folder' => [(string) $charter->folder_id, $this->paths($session->project_id)[$charter->folder_id] ?? 'No folder'],
            'label' => [$charter->label, '' === $charter->label ? 'No label' : $charter->label],
            'requirement' => [(string) $charter->requirement_id, $charter->requirement->title ?? 'No requirement'],
            'build' => [(string) $session->build_id, $session->build->name ?? 'No build'],
            'person' => [$session->tester_id, $session->tester->name],
            default => [$month->format('Y-m'), $month->format('Y-m')],
        };
    }

    /**
     * What could have been explored, so that what was not stands there too.
     *
     * @return array<string, string> names by id
     */
    private function known(Project $project, string $by): array
    {
        return match ($by) {
            'folder' => $this->paths($project->id),
            'label' => DB::table('labels')->where('project_id', $project->id)->pluck('name', 'name')->map(strval(...))->all(),
            'build' => Build::query()->where('project_id', $project->id)->pluck('name', 'id')->map(strval(...))->all(),
            default => [],
        };
    }

    /** @var array<string, array<string, string>> by project */
    private array $paths = [];

    /**
     * @return array<string, string> whole paths by id
     */
    private function paths(string $project): array
    {
        return $this->paths[$project] ??= array_column(
            DB::select(
                'with recursive f as (select id, name::text as path from folders where project_id = ? and parent_id is null and ' .
                    "binned_at is null union all select c.id, f.path || ' / ' || c.name from folders c join f on c.parent_id = f.id " .
                    'where c.binned_at is null) select id, path from f',
                [$project],
            ),
            'path',
            'id',
        );
    }

    /**
     * @return array<string, array{int, int, int}> by folder its cases, those walked on a build, and open defects
     */
    private function inFolders(Project $project, string $build): array
    {
        return $this->inside('c.folder_id', '', $project, $build);
    }

    /**
     * @return array<string, array{int, int, int}> the same by label
     */
    private function underLabels(Project $project, string $build): array
    {
        return $this->inside('l.name', 'cross join lateral jsonb_array_elements_text(c.labels) as l (name)', $project, $build);
    }

    /**
     * @return array<string, array{int, int, int}>
     */
    private function inside(string $of, string $join, Project $project, string $build): array
    {
        $closed = implode("', '", array_map(static fn(DefectState $s): string => $s->value, DefectState::closed()));
        $rows = DB::select(
            "select {$of} as area, count(*) as cases, count(*) filter (where exists (select from entries e join attempts a on " .
                'a.entry_id = e.id where e.case_id = c.id and a.build_id = ? and a.finished_at is not null)) as walked, ' .
                "coalesce(sum((select count(*) from defects d where d.case_id = c.id and d.state not in ('{$closed}'))), 0) as defects " .
                "from cases c {$join} where c.project_id = ? and c.binned_at is null and {$of} is not null group by 1",
            [$build, $project->id],
        );
        $inside = [];
        foreach ($rows as $row) {
            $inside[(string) $row->area] = [(int) $row->cases, (int) $row->walked, (int) $row->defects];
        }

        return $inside;
    }
}
