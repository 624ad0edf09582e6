<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Queries;

use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Defects\Queries\DuplicateChains;
use LucidStep\App\Areas\Walk\Data\RetestLine;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Data\Person;
use LucidStep\App\Support\Time\UtcTime;
use LucidStep\Core\Defects\Chains;
use LucidStep\Core\Defects\DefectState;
use LucidStep\Core\Defects\FixState;
use LucidStep\Core\Defects\RetestProposal;

/**
 * Reads which failed entries can be walked again after a fix: a list that is live, and never stored.
 */
final class ReadRetests
{
    /**
     * @return list<RetestLine> those of a defect and of what is called the same as it
     */
    public function of(Defect $defect): array
    {
        $project = Project::query()->findOrFail($defect->project_id);
        $duplicates = DuplicateChains::of($project->id);
        $first = $duplicates->first($defect->id);

        return array_values(
            array_map(
                static fn(array $of): RetestLine => $of[0],
                array_filter($this->all($project, $duplicates), static fn(array $of): bool => \in_array($first, $of[1], true)),
            ),
        );
    }

    /**
     * @return list<RetestLine> of the whole project, the newest fix first
     */
    public function ofProject(Project $project): array
    {
        $lines = array_column($this->all($project, DuplicateChains::of($project->id)), 0);
        usort($lines, static fn(RetestLine $a, RetestLine $b): int => $b->at <=> $a->at);

        return $lines;
    }

    /**
     * @return list<array{RetestLine, list<string>}> each with the defects that it is of, duplicates as their first
     */
    private function all(Project $project, Chains $duplicates): array
    {
        $entries = collect(
            DB::select(
                <<<'SQL'
                select e.id, k.key, k.title, c.key as cycle_key, c.name as cycle, cb.position as cycle_build, u.id as assignee_id,
                    u.name as assignee, wb.position as walked_on, wb.name as walked_name
                from entries e
                join cases k on k.id = e.case_id
                join cycles c on c.id = e.cycle_id
                left join builds cb on cb.id = c.build_id
                left join users u on u.id = e.assignee_id
                join lateral (
                    select a.build_id from attempts a where a.entry_id = e.id and a.state = 'finished' order by a.number desc limit 1
                ) w on true
                left join builds wb on wb.id = w.build_id
                where e.project_id = ? and c.state = 'released' and e.display_state in ('fail', 'blocked')
                    and exists (select from defect_links l where l.entry_id = e.id)
                order by c.key, e.position
                SQL
                ,
                [$project->id],
            ),
        );
        [$links, $states, $times] = $this->defects($duplicates, $entries);
        $found = [];
        foreach ($entries as $e) {
            $ids = array_values(array_unique($links[$e->id] ?? []));
            $proposal = RetestProposal::of(
                $e->walked_on,
                $e->cycle_build,
                array_values(array_filter(array_map(static fn(string $id): ?FixState => $states[$id] ?? null, $ids))),
            );
            if (null !== $proposal) {
                $at = array_map(static fn(string $id): string => $times[$id] ?? '', $ids);
                $found[] = [
                    new RetestLine(
                        $e->id,
                        $e->key,
                        $e->title,
                        $e->cycle_key,
                        $e->cycle,
                        null === $e->assignee_id ? null : new Person($e->assignee_id, $e->assignee),
                        $e->walked_name ?? '',
                        $proposal->buildName,
                        $proposal->fixed,
                        $proposal->waitsOn,
                        $proposal->isBehind,
                        [] === $at ? '' : max($at),
                    ),
                    $ids,
                ];
            }
        }

        return $found;
    }

    /**
     * @param  Collection<int, \stdClass>  $entries
     *
     * @return array{array<string, list<string>>, array<string, FixState>, array<string, string>} the defects of each entry, how each
     *     stands, and when it changed last
     */
    private function defects(Chains $duplicates, Collection $entries): array
    {
        $links = $states = $times = [];
        foreach (
            DB::table('defect_links')
                ->whereIn('entry_id', $entries->pluck('id'))
                ->get(['entry_id', 'defect_id'])
            as $link
        ) {
            $links[(string) $link->entry_id][] = $duplicates->first((string) $link->defect_id);
        }
        $rows = DB::table('defects')
            ->leftJoin('builds', 'builds.id', '=', 'fixed_build_id')
            ->whereIn('defects.id', array_unique(array_merge([], ...array_values($links))))
            ->get(['defects.id', 'key', 'state', 'builds.position', 'builds.name', 'defects.updated_at']);
        foreach ($rows as $d) {
            $states[$d->id] = new FixState($d->key, DefectState::from($d->state), $d->position, $d->name ?? '');
            $times[$d->id] = UtcTime::time($d->updated_at) ?? '';
        }

        return [$links, $states, $times];
    }
}
