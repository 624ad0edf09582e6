<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Queries;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Sessions\Data\FigureRow;
use LucidStep\App\Areas\Sessions\Data\SessionFigures;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\TestSession;
use LucidStep\App\Support\Data\Named;
use LucidStep\Core\Sessions\AreaFigures;
use LucidStep\Core\Sessions\ExploredSession;
use LucidStep\Core\Sessions\LineKind;
use LucidStep\Core\Sessions\SessionState;

/**
 * Reads what the sessions of a project that are over come to (rules of the job, 8).
 */
final class ReadFigures
{
    /** What figures are by. */
    public const BY = ['folder', 'label', 'requirement', 'build', 'person', 'month'];

    /**
     * @param  value-of<self::BY>  $by
     * @param  ?Carbon  $from  only what was begun from then on
     * @param  ?Carbon  $until and before then
     */
    public function __invoke(Project $project, string $by, ?Carbon $from = null, ?Carbon $until = null): SessionFigures
    {
        $builds = $this->builds($project);
        $newest = array_key_last($builds);
        $places = array_flip(array_map(static fn(Build $b): string => $b->id, $builds));
        $today = Carbon::now($project->time_zone)->startOfDay();
        $areas = [];
        $all = [];
        foreach ($this->sessions($project, $from, $until) as [$session, $counts]) {
            $explored = $this->explored($session, $counts, $places, $project->time_zone);
            $all[] = $explored;
            foreach ($this->areas($session, $by, $project->time_zone) as $id => $name) {
                $areas[$id] ??= ['name' => $name, 'sessions' => []];
                $areas[$id]['sessions'][] = $explored;
            }
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
     * @param  array<string, int>  $places of builds, by id
     */
    private function explored(TestSession $session, array $counts, array $places, string $zone): ExploredSession
    {
        $ended = $session->stopped_at ?? $session->started_at;
        $shares = $session->shares($ended->getTimestampMs());
        return new ExploredSession(
            $places[$session->build_id ?? ''] ?? null,
            $ended->copy()->setTimezone($zone)->toDateTimeImmutable()->setTime(0, 0),
            $session->clock()->at($ended->getTimestampMs()),
            $shares->focus['charter'],
            $shares->work['testing'],
            ...$counts,
        );
    }

    /**
     * Where a session counts: of folders in its own and in all above it.
     *
     * @return array<string, string> names by id
     */
    private function areas(TestSession $session, string $by, string $zone): array
    {
        $charter = $session->charter;
        $month = $session->started_at->copy()->setTimezone($zone)->format('Y-m');

        return match ($by) {
            'folder' => $this->above($session->project_id, (string) $charter->folder_id),
            'label' => [$charter->label => '' === $charter->label ? 'No label' : $charter->label],
            'requirement' => [(string) $charter->requirement_id => $charter->requirement->title ?? 'No requirement'],
            'build' => [(string) $session->build_id => $session->build->name ?? 'No build'],
            'person' => [$session->tester_id => $session->tester->name],
            default => [$month => $month],
        };
    }

    /**
     * @return array<string, string> paths of a folder and of those above it, by id
     */
    private function above(string $project, string $folder): array
    {
        $folders = $this->folders($project);
        $found = [];
        for ($id = $folder; isset($folders[$id]); $id = (string) $folders[$id]->parent_id) {
            $found[$id] = $folders[$id]->path;
        }

        return [] === $found ? ['' => 'No folder'] : $found;
    }

    /**
     * What could have been explored, so that what was not stands there too.
     *
     * @return array<string, string> names by id
     */
    private function known(Project $project, string $by): array
    {
        return match ($by) {
            'folder' => array_map(static fn(object $f): string => $f->path, $this->folders($project->id)),
            'label' => DB::table('labels')->where('project_id', $project->id)->pluck('name', 'name')->map(strval(...))->all(),
            'build' => Build::query()->where('project_id', $project->id)->pluck('name', 'id')->map(strval(...))->all(),
            default => [],
        };
    }

    /** @var array<string, array<string, object{id: string, parent_id: ?string, path: string}>> by project */
    private array $folders = [];

    /**
     * @return array<string, object{id: string, parent_id: ?string, path: string}> with their whole paths, by id
     */
    private function folders(string $project): array
    {
        return $this->folders[$project] ??= array_column(
            DB::select(
                'with recursive f as (select id, parent_id, name::text as path from folders where project_id = ? and ' .
                    "parent_id is null and binned_at is null union all select c.id, c.parent_id, f.path || ' / ' || c.name " .
                    'from folders c join f on c.parent_id = f.id where c.binned_at is null) select id, parent_id, path from f',
                [$project],
            ),
            null,
            'id',
        );
    }
}
