<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Queries;

use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Areas\Coverage\Data\Trace;
use LucidStep\App\Areas\Coverage\Data\TraceKind;
use LucidStep\App\Areas\Coverage\Data\TraceLink;
use LucidStep\App\Areas\Coverage\Data\TraceRow;
use LucidStep\App\Areas\Coverage\Data\TraceSession;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Time\UtcTime;
use LucidStep\Core\Planning\CycleState;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;

/**
 * Reads what a thing is tied to: requirement – case – entry – attempt – step – defect – evidence, and sessions beside them.
 */
final class ReadTrace
{
    /** As many rows are told at once. */
    public const ROWS = 1000;

    /** As many rows a sheet is written with at a time. */
    private const WINDOW = 5000;

    /**
     * @param  string  $id key or id
     * @param  bool  $leads whether whoever asks may know of cycles that are being planned
     * @param  bool  $sees  whether they may see defects and evidence
     * @param  int  $from  as many rows are passed over
     *
     * @throws NotFoundHttpException when there is no such thing, or they may not know of it
     */
    public function __invoke(
        Project $project,
        TraceKind $kind,
        string $id,
        bool $leads,
        bool $sees,
        int $most = self::ROWS,
        int $from = 0,
    ): Trace {
        $of =
            \in_array($kind, [TraceKind::Defect, TraceKind::Evidence], true) && !$sees
                ? null
                : $this->find($project->id, $kind, $id, $leads);
        if (null === $of) {
            throw new NotFoundHttpException();
        }
        $found = $this->rows($project->id, $kind, $of->id, $leads, $most + 1, $from);
        $rows = $this->told(\array_slice($found, 0, $most), $sees);
        $defects = array_merge(...array_map(static fn(TraceRow $r): array => array_column($r->defects, 'id'), $rows), ...[[]]);
        $cases = array_values(array_filter(array_map(static fn(TraceRow $r): ?string => $r->case?->id, $rows)));
        $sessions = $this->sessions($project->id, $kind, $of->id, array_unique($cases), array_unique($defects), $sees);

        return new Trace($kind->value, $of, $rows, $sessions, \count($found) > $most, $sees);
    }

    /**
     * All of it, one part after the other.
     *
     * @return \Generator<int, Trace>
     */
    public function parts(Project $project, TraceKind $kind, string $id, bool $leads, bool $sees, int $window = self::WINDOW): \Generator
    {
        $from = 0;
        do {
            $part = $this($project, $kind, $id, $leads, $sees, $window, $from);
            yield $part;
            $from += $window;
        } while ($part->more);
    }

    private function find(string $project, TraceKind $kind, string $id, bool $leads): ?TraceLink
    {
        $planned = CycleState::planned();
        $hidden = static fn(Builder $q): Builder => $leads ? $q : $q->whereNotIn('cycles.state', $planned);
        $entries = $hidden(
            DB::table('entries')->join('cases', 'cases.id', '=', 'entries.case_id')->join('cycles', 'cycles.id', '=', 'entries.cycle_id'),
        );
        [$query, $key, $title, $state] = match ($kind) {
            TraceKind::Requirement => [DB::table('requirements'), 'key', 'title', null],
            TraceKind::TestCase => [DB::table('cases'), 'key', 'title', 'state'],
            TraceKind::Cycle => [$hidden(DB::table('cycles')), 'key', 'name', 'state'],
            TraceKind::Entry => [$entries, "cases.key || ' in ' || cycles.key", 'cases.title', 'display_state'],
            TraceKind::Attempt => [
                $entries->join('attempts', 'attempts.entry_id', '=', 'entries.id'),
                "cases.key || ' in ' || cycles.key || ', ' || attempts.number || '.'",
                'cases.title',
                'verdict',
            ],
            TraceKind::Defect => [DB::table('defects'), 'key', 'title', 'state'],
            TraceKind::Session => [
                DB::table('test_sessions')->join('charters', 'charters.id', '=', 'test_sessions.charter_id'),
                'charters.key',
                'charters.title',
                'test_sessions.state',
            ],
            TraceKind::Evidence => [DB::table('evidence')->whereNull('removed_at'), 'source', "coalesce(nullif(caption, ''), name)", null],
        };
        $table = $kind->table();
        $query->where("{$table}.project_id", $project);
        if (Str::isUuid($id)) {
            $query->where("{$table}.id", $id);
        } elseif ($kind->isKeyless()) {
            return null;
        } else {
            $query->where((TraceKind::Session === $kind ? 'charters' : $table) . '.key', mb_strtoupper($id));
        }
        $found = $query
            ->selectRaw("{$table}.id, {$key} as key, {$title} as title, " . ($state ?? 'null') . ' as state')
            ->when(TraceKind::Session === $kind, static fn(Builder $q): Builder => $q->orderByDesc('test_sessions.started_at'))
            ->first();

        return null === $found ? null : new TraceLink($found->id, $found->key, $found->title, $found->state);
    }

    /**
     * @return list<\stdClass>
     */
    private function rows(string $project, TraceKind $kind, string $id, bool $leads, int $most, int $from): array
    {
        $planned = $leads ? '' : " and y.state not in ('" . implode("', '", array_column(CycleState::planned(), 'value')) . "')";
        // A requirement is told with those below it, and with those that no case shows.
        $things =
            TraceKind::Requirement === $kind
                ? 'tree t join requirements q on q.id = t.id left join case_requirements l on l.requirement_id = q.id ' .
                    'left join cases c on c.id = l.case_id and c.binned_at is null'
                : 'cases c left join (case_requirements l join requirements q on q.id = l.requirement_id and q.dropped_at is null) ' .
                    'on l.case_id = c.id';
        $step = static fn(string $of): string => "(coalesce({$of}.round, 1), {$of}.step) = (s.round, s.step)";
        $links = 'select 1 from defect_links d where d.entry_id = e.id and (d.attempt_id is null or d.attempt_id = a.id)';
        $where = match ($kind) {
            TraceKind::Requirement => 'true',
            TraceKind::TestCase => 'c.id = :id',
            TraceKind::Cycle => 'y.id = :id',
            TraceKind::Entry => 'e.id = :id',
            TraceKind::Attempt => 'a.id = :id',
            TraceKind::Defect => 'e.id in (select entry_id from defect_links where defect_id = :id) and ' .
                "exists ({$links} and d.defect_id = :id and (d.step is null or s.step is null or {$step('d')}))",
            TraceKind::Session => 'c.id in (select r.case_id from repros r where r.session_id = :id union select n.case_id from repros r ' .
                'join defect_links d on d.defect_id = r.defect_id join entries n on n.id = d.entry_id where r.session_id = :id) and ' .
                '(c.id in (select case_id from repros where session_id = :id) or exists (' .
                $links .
                ' and d.defect_id in (select defect_id from repros where session_id = :id)))',
            TraceKind::Evidence => 'a.id = (select attempt_id from evidence where id = :id) and ' .
                "exists (select 1 from evidence v where v.id = :id and (v.step is null or {$step('v')}))",
        };

        return array_values(
            DB::select(
                <<<SQL
                with recursive tree as (
                    select id from requirements where id::text = :root and project_id = :project
                    union
                    select r.id from requirements r join tree on r.parent_id = tree.id where r.dropped_at is null
                )
                select q.id as requirement_id, q.key as requirement, q.title as requirement_title, c.id as case_id, c.key as "case",
                    c.title as case_title, c.state as case_state, e.id as entry_id, y.key as cycle, y.name as cycle_name,
                    g.name as configuration, e.display_state, a.id as attempt_id, a.number, a.state as attempt_state, a.verdict,
                    b.name as build, a.finished_at, s.round, s.step, s.verdict as step_verdict
                from {$things}
                left join (entries e join cycles y on y.id = e.cycle_id{$planned}) on e.case_id = c.id
                left join configurations g on g.id = e.configuration_id
                left join attempts a on a.entry_id = e.id
                left join builds b on b.id = a.build_id
                left join lateral (
                    select r.position as round, p.position as step, p.verdict
                    from rounds r join step_results p on p.round_id = r.id
                    where r.attempt_id = a.id and (p.verdict in ('fail', 'blocked')
                        or exists (select 1 from defect_links d where d.attempt_id = a.id
                            and (coalesce(d.round, 1), d.step) = (r.position, p.position))
                        or exists (select 1 from evidence v where v.attempt_id = a.id and v.removed_at is null
                            and (coalesce(v.round, 1), v.step) = (r.position, p.position)))
                ) s on true
                where coalesce(c.project_id, q.project_id) = :project and c.binned_at is null and ({$where})
                order by q.position nulls last, q.number, c.number, y.number, e.position, a.number, s.round, s.step, e.id, l.requirement_id
                limit {$most} offset {$from}
                SQL
                ,
                ['project' => $project, 'root' => TraceKind::Requirement === $kind ? $id : ''] +
                    (TraceKind::Requirement === $kind ? [] : ['id' => $id]),
            ),
        );
    }

    /**
     * @param  list<\stdClass>  $found
     *
     * @return list<TraceRow>
     */
    private function told(array $found, bool $sees): array
    {
        $defects = $sees ? $this->defects(array_column($found, 'entry_id')) : [];
        $evidence = $sees ? $this->evidence(array_column($found, 'attempt_id')) : [];
        $rows = [];
        $told = [];
        foreach ($found as $r) {
            $step = self::place($r);
            $ofAttempt = "{$r->attempt_id}/";
            $ofEntry = "{$r->entry_id}";
            $own = [$step, ...isset($told[$ofAttempt]) ? [] : [$ofAttempt], ...isset($told[$ofEntry]) ? [] : [$ofEntry]];
            $told[$ofAttempt] = $told[$ofEntry] = true;
            $rows[] = new TraceRow(
                self::link($r->requirement_id, $r->requirement, $r->requirement_title),
                self::link($r->case_id, $r->case, $r->case_title, $r->case_state),
                self::link($r->entry_id, "{$r->cycle} {$r->cycle_name}", $r->configuration, $r->display_state),
                self::link(
                    $r->attempt_id,
                    (string) $r->number,
                    $r->build,
                    'finished' === $r->attempt_state ? $r->verdict : $r->attempt_state,
                ),
                UtcTime::time($r->finished_at),
                $r->round,
                $r->step,
                $r->step_verdict,
                self::pick($defects, $own),
                self::pick($evidence, $own),
            );
        }

        return $rows;
    }

    private static function link(?string $id, ?string $key, ?string $title, ?string $state = null): ?TraceLink
    {
        return null === $id ? null : new TraceLink($id, (string) $key, (string) $title, $state);
    }

    /**
     * @param  \stdClass  $of attempt_id, round and step
     *
     * @return string the step of an attempt; the attempt where no step is named
     */
    private static function place(\stdClass $of): string
    {
        return "{$of->attempt_id}/" . (null === $of->step ? '' : ($of->round ?? 1) . "/{$of->step}");
    }

    /**
     * @param  array<string, list<TraceLink>>  $all
     * @param  list<string>  $of
     *
     * @return list<TraceLink>
     */
    private static function pick(array $all, array $of): array
    {
        $found = array_merge(...array_map(static fn(string $key): array => $all[$key] ?? [], array_unique($of)));

        return array_values(array_column($found, null, 'id'));
    }

    /**
     * @param  array<?string>  $entries ids
     *
     * @return array<string, list<TraceLink>> by attempt, round and step; by entry where no attempt is named
     */
    private function defects(array $entries): array
    {
        $found = [];
        foreach (
            DB::table('defect_links')
                ->join('defects', 'defects.id', '=', 'defect_links.defect_id')
                ->whereIn('entry_id', array_unique(array_filter($entries)))
                ->orderBy('defects.number')
                ->get(['defects.id', 'defects.key', 'title', 'defects.state', 'entry_id', 'attempt_id', 'round', 'step'])
            as $d
        ) {
            $of = null === $d->attempt_id ? $d->entry_id : self::place($d);
            $found[$of][] = new TraceLink($d->id, $d->key, $d->title, $d->state);
        }

        return $found;
    }

    /**
     * @param  array<?string>  $attempts ids
     *
     * @return array<string, list<TraceLink>> by attempt, round and step
     */
    private function evidence(array $attempts): array
    {
        $found = [];
        foreach (
            DB::table('evidence')
                ->whereIn('attempt_id', array_unique(array_filter($attempts)))
                ->whereNull('removed_at')
                ->orderBy('evidence.created_at')
                ->leftJoin('files', 'files.sha256', '=', 'evidence.sha256')
                ->get(['id', 'source', 'name', 'caption', 'attempt_id', 'round', 'step', 'media_type'])
            as $e
        ) {
            $title = '' === (string) $e->caption ? (string) $e->name : $e->caption;
            $found[self::place($e)][] = new TraceLink($e->id, $e->source, $title, $e->media_type);
        }

        return $found;
    }

    /**
     * @param  array<string>  $cases that are told
     * @param  array<string>  $defects that are told
     *
     * @return list<TraceSession>
     */
    private function sessions(string $project, TraceKind $kind, string $id, array $cases, array $defects, bool $sees): array
    {
        $of = match ($kind) {
            TraceKind::Requirement
                => 'h.requirement_id in (with recursive tree as (select :id::uuid as id union select r.id from requirements r ' .
                'join tree on r.parent_id = tree.id) select id from tree)',
            TraceKind::Session => 's.id = :id',
            TraceKind::TestCase => 'exists (select 1 from repros r where r.session_id = s.id and r.case_id = :id)',
            TraceKind::Defect => 'exists (select 1 from repros r where r.session_id = s.id and r.defect_id = :id)',
            default => ':id::uuid is null',
        };
        $found = DB::select(
            <<<SQL
            select s.id, h.key, h.title, s.state, s.started_at, q.id as requirement_id, q.key as requirement,
                q.title as requirement_title
            from test_sessions s join charters h on h.id = s.charter_id left join requirements q on q.id = h.requirement_id
            where s.project_id = :project and ({$of} or exists (select 1 from repros r where r.session_id = s.id
                and (r.case_id = any(cast(:cases as uuid[])) or r.defect_id = any(cast(:defects as uuid[])))))
            order by s.started_at desc limit 200
            SQL
            ,
            [
                'project' => $project,
                'id' => $id,
                'cases' => '{' . implode(',', TraceKind::Cycle === $kind ? [] : $cases) . '}',
                'defects' => '{' . implode(',', $defects) . '}',
            ],
        );
        $came = static fn(string $what): array => DB::table('repros')
            ->join("{$what}s", "{$what}s.id", '=', "repros.{$what}_id")
            ->whereIn('session_id', array_column($found, 'id'))
            ->orderBy("{$what}s.number")
            ->get(["{$what}s.id", "{$what}s.key", "{$what}s.title", "{$what}s.state", 'session_id'])
            ->groupBy('session_id')
            ->map(static fn($of): array => $of->map(static fn(\stdClass $o) => new TraceLink($o->id, $o->key, $o->title, $o->state))->all())
            ->all();
        [$made, $filed] = [$came('case'), $sees ? $came('defect') : []];

        return array_values(
            array_map(
                static fn(\stdClass $s): TraceSession => new TraceSession(
                    new TraceLink($s->id, $s->key, $s->title, $s->state),
                    self::link($s->requirement_id, $s->requirement, $s->requirement_title),
                    (string) UtcTime::time($s->started_at),
                    array_values($made[$s->id] ?? []),
                    array_values($filed[$s->id] ?? []),
                ),
                $found,
            ),
        );
    }
}
