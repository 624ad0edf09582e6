<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Today\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Today\Data\OpenDefect;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Time\UtcTime;

/**
 * Reads the defects that a developer has to do with, each with what failed last and its newest picture: one query.
 */
final class ReadOpenDefects
{
    private const MOST = 100;

    /**
     * @return list<OpenDefect> what came back first, then what is theirs, asked back, nobody's, and fixed but not verified
     */
    public function __invoke(Project $project, User $user): array
    {
        $rows = DB::select(
            <<<'SQL'
            select d.key, d.title, d.severity, d.state, d.actual, d.updated_at, b.name as build, last.step, last.picture,
                case when d.state = 'reopened' then 'reopened' when d.state = 'fixed' then 'fixed'
                    when d.state = 'needs_information' then 'asked_back'
                    when d.assignee_id is null then 'nobody' else 'with_me' end as part
            from defects d
            left join builds b on b.id = d.build_id
            left join lateral (
                select l.step, (
                    select e.id from evidence e join files f on f.sha256 = e.sha256
                    where e.attempt_id = l.attempt_id and e.round is not distinct from l.round
                        and e.step is not distinct from l.step and e.removed_at is null and f.media_type like 'image/%'
                    order by e.created_at desc limit 1) as picture
                from defect_links l where l.defect_id = d.id order by l.created_at desc limit 1
            ) last on true
            where d.project_id = ? and (
                (d.assignee_id = ? and d.state in ('new', 'accepted', 'in_work', 'needs_information', 'fixed', 'reopened'))
                or d.state = 'reopened' or (d.assignee_id is null and d.state in ('new', 'accepted')))
            order by array_position(array['reopened', 'with_me', 'asked_back', 'nobody', 'fixed'],
                case when d.state = 'reopened' then 'reopened' when d.state = 'fixed' then 'fixed'
                    when d.state = 'needs_information' then 'asked_back'
                    when d.assignee_id is null then 'nobody' else 'with_me' end),
                array_position(array['critical', 'major', 'minor', 'trivial'], d.severity::text), d.updated_at desc, d.number
            limit ?
            SQL
            ,
            [$project->id, $user->id, self::MOST],
        );

        return array_values(
            array_map(
                static fn(\stdClass $d): OpenDefect => new OpenDefect(
                    $d->part,
                    $d->key,
                    $d->title,
                    $d->severity,
                    $d->state,
                    $d->actual,
                    null === $d->step ? null : (int) $d->step,
                    $d->build,
                    $d->picture,
                    UtcTime::time($d->updated_at) ?? '',
                ),
                $rows,
            ),
        );
    }
}
