<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Today\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Today\Data\OpenDefect;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Time\UtcTime;
use LucidStep\Core\Defects\DefectState;
use LucidStep\Core\Defects\DeveloperQueue;

/**
 * Reads the defects that a developer has to do with, each with what failed last and its newest picture. Two queries: of all that are
 * open what decides their place, then the first of them whole.
 */
final class ReadOpenDefects
{
    private const MOST = 100;

    /**
     * @return list<OpenDefect> in the order of {@see DeveloperQueue}, the gravest and newest first
     */
    public function __invoke(Project $project, User $user): array
    {
        $parts = array_slice($this->places($project, $user), 0, self::MOST);
        $rows = array_column(
            DB::select(
                <<<'SQL'
                select d.id, d.key, d.title, d.severity, d.state, d.actual, d.updated_at, b.name as build, last.step, last.picture
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
                where d.id = any(?::uuid[])
                SQL
                ,
                ['{' . implode(',', array_keys($parts)) . '}'],
            ),
            null,
            'id',
        );
        $defects = [];
        foreach ($parts as $id => $part) {
            $d = $rows[$id];
            $defects[] = new OpenDefect(
                $part->value,
                $d->key,
                $d->title,
                $d->severity,
                $d->state,
                $d->actual,
                null === $d->step ? null : (int) $d->step,
                $d->build,
                $d->picture,
                UtcTime::time($d->updated_at) ?? '',
            );
        }

        return $defects;
    }

    /**
     * @return array<string, DeveloperQueue> by defect, in order
     */
    private function places(Project $project, User $user): array
    {
        $closed = array_filter(DefectState::cases(), static fn(DefectState $s): bool => $s->isClosed());
        $parts = $places = [];
        foreach (
            DB::table('defects')
                ->where('project_id', $project->id)
                ->whereNotIn('state', $closed)
                ->orderByDesc('updated_at')
                ->orderBy('number')
                ->get(['id', 'state', 'severity', 'assignee_id'])
            as $at => $d
        ) {
            $part = DeveloperQueue::of(DefectState::from($d->state), $d->assignee_id === $user->id, null !== $d->assignee_id);
            if (null !== $part) {
                $parts[$d->id] = $part;
                $places[$d->id] = [...$part->place($d->severity), $at];
            }
        }
        asort($places);

        return array_map(static fn(string $id): DeveloperQueue => $parts[$id], array_combine(array_keys($places), array_keys($places)));
    }
}
