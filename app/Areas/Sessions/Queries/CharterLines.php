<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Sessions\Data\CharterLine;
use LucidStep\App\Areas\Sessions\Data\SessionName;
use LucidStep\App\Support\Data\Named;
use LucidStep\App\Support\Data\Person;
use LucidStep\App\Support\Time\UtcTime;
use LucidStep\Core\Sessions\CharterState;
use LucidStep\Core\Sessions\SessionState;

/**
 * Charters as lines of a list, and their sessions in short, by two queries of rows.
 */
final class CharterLines
{
    /**
     * @return list<CharterLine> what runs first, then what waits, the most urgent first, then the newest
     */
    public static function of(string $project): array
    {
        $rows = self::rows()->where('c.project_id', $project)->orderByDesc('c.number')->get();
        $sessions = self::sessions(array_values($rows->pluck('id')->map(strval(...))->all()));
        $lines = $rows->map(static fn(\stdClass $c): CharterLine => self::line($c, $sessions[(string) $c->id] ?? []))->all();
        $rank = static fn(CharterLine $c): int => CharterState::from($c->state)->rank($c->priority);
        usort($lines, static fn(CharterLine $a, CharterLine $b): int => $rank($a) <=> $rank($b));

        return $lines;
    }

    /**
     * @return array{CharterLine, list<SessionName>} with its sessions, the first first
     */
    public static function one(string $charter): array
    {
        $row = self::rows()->where('c.id', $charter)->first() ?? throw new \LogicException('A charter without a row.');
        $sessions = self::sessions([$charter])[$charter] ?? [];

        return [self::line($row, $sessions), $sessions];
    }

    private static function rows(): \Illuminate\Database\Query\Builder
    {
        return DB::table('charters as c')
            ->join('users as w', 'w.id', '=', 'c.author_id')
            ->leftJoin('users as a', 'a.id', '=', 'c.assignee_id')
            ->leftJoin('builds as b', 'b.id', '=', 'c.build_id')
            ->leftJoin('configurations as f', 'f.id', '=', 'c.configuration_id')
            ->leftJoin('milestones as m', 'm.id', '=', 'c.milestone_id')
            ->leftJoin('folders as o', 'o.id', '=', 'c.folder_id')
            ->leftJoin('requirements as q', 'q.id', '=', 'c.requirement_id')
            ->select([
                'c.*',
                ...['w.name as author', 'a.name as assignee', 'b.name as build', 'f.name as configuration'],
                ...['m.name as milestone', 'o.name as folder', 'q.title as requirement'],
            ]);
    }

    /**
     * @param  list<string>  $charters ids
     *
     * @return array<string, list<SessionName>> by charter, the first first
     */
    private static function sessions(array $charters): array
    {
        $rows = DB::table('test_sessions as s')
            ->join('users as t', 't.id', '=', 's.tester_id')
            ->whereIn('s.charter_id', $charters)
            ->orderBy('s.number')
            ->get([
                ...['s.id', 's.charter_id', 's.number', 's.state', 's.tester_id', 't.name as tester', 's.started_at'],
                DB::raw("(select count(*) from session_lines l where l.session_id = s.id and l.kind = 'issue') as issues"),
            ]);
        $sessions = [];
        foreach ($rows as $s) {
            $sessions[(string) $s->charter_id][] = new SessionName(
                $s->id,
                $s->number,
                $s->state,
                new Person($s->tester_id, $s->tester),
                UtcTime::time($s->started_at) ?? '',
                (int) $s->issues,
            );
        }

        return $sessions;
    }

    /**
     * @param  list<SessionName>  $sessions
     */
    private static function line(\stdClass $c, array $sessions): CharterLine
    {
        $last = $sessions[\count($sessions) - 1] ?? null;
        [$kind, $id, $area] = match (true) {
            null !== $c->folder_id => ['folder', $c->folder_id, (string) $c->folder],
            null !== $c->requirement_id => ['requirement', $c->requirement_id, (string) $c->requirement],
            '' !== $c->label => ['label', $c->label, $c->label],
            default => ['', '', ''],
        };

        return new CharterLine(
            $c->id,
            $c->key,
            $c->title,
            $c->with_what,
            $c->to_find,
            $kind,
            $id,
            $area,
            $c->risk,
            $c->priority,
            $c->box_minutes,
            null === $c->build_id ? null : new Named($c->build_id, (string) $c->build),
            null === $c->configuration_id ? null : new Named($c->configuration_id, (string) $c->configuration),
            null === $c->milestone_id ? null : new Named($c->milestone_id, (string) $c->milestone),
            null === $c->assignee_id ? null : new Person($c->assignee_id, (string) $c->assignee),
            new Person($c->author_id, $c->author),
            $c->not_before,
            CharterState::of(null === $last ? null : SessionState::from($last->state), null !== $c->dropped_at)->value,
            $c->version,
            UtcTime::time($c->created_at) ?? '',
            $last,
        );
    }
}
