<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\Core\Coverage\CoverageState;
use LucidStep\Core\Coverage\Outcome;

/**
 * What cases show, from the cells that the database keeps beside the record. It must equal {@see \LucidStep\Core\Coverage\CaseCells}
 * from scratch.
 */
final class CaseOutcomes
{
    /**
     * @param  ?list<string>  $cases ids; null: all that are linked to a requirement
     *
     * @return array<string, array{outcome: Outcome, cells: int, walked: int}> by id of the case; one without a cell is left out
     */
    public static function of(string $project, CoverageLens $lens, ?array $cases = null): array
    {
        [$scope, $with] = $lens->conditions('c.build_id', 'c.configuration_id', 'c.milestone_id');
        [$plans, $planned] = $lens->conditions('y.build_id', 'e.configuration_id', 'y.milestone_id');
        $ranks = implode(', ', array_map(static fn(CoverageState $s): string => "('{$s->value}', {$s->rank()})", CoverageState::cases()));
        $which =
            null === $cases
                ? 'select r.case_id from case_requirements r join requirements q on q.id = r.requirement_id ' .
                    'where q.project_id = ? and q.dropped_at is null'
                : 'select unnest(?::uuid[])';
        $found = DB::select(
            <<<SQL
            with ranks(state, rank) as (values {$ranks}), linked as materialized (
                select k.id from cases k where k.binned_at is null and k.state <> 'retired' and k.id in ({$which})
            ), finished as materialized (
                select distinct on (c.case_id, c.configuration_id, c.row_id) c.case_id, c.configuration_id, c.row_id,
                    case when e.display_state in ('retest', 'in_progress') then e.display_state else c.state end as state
                from coverage_cells c
                join linked l on l.id = c.case_id
                join entries e on e.id = c.entry_id
                left join builds b on b.id = c.build_id
                where c.project_id = ?{$scope}
                order by c.case_id, c.configuration_id, c.row_id, b.position desc nulls last, c.finished_at desc, c.attempt_id desc
            ), planned as (
                select e.case_id, min(k.rank) as rank
                from entries e
                join ranks k on k.state = e.display_state
                join linked l on l.id = e.case_id
                join cycles y on y.id = e.cycle_id
                cross join lateral (
                    select x.id::uuid from jsonb_array_elements_text(
                        coalesce(nullif(e.row_ids, '[]'::jsonb), '[null]'::jsonb)) x(id)
                ) r(row_id)
                where e.project_id = ? and y.state <> 'draft'{$plans}
                    and not exists (select 1 from attempts a where a.entry_id = e.id and a.state = 'finished')
                    and not exists (select 1 from finished f where f.case_id = e.case_id
                        and f.configuration_id is not distinct from e.configuration_id and f.row_id is not distinct from r.row_id)
                group by e.case_id, e.configuration_id, r.row_id
            ), cells as (
                select f.case_id, k.rank, f.state not in ('in_progress', 'not_run') as walked from finished f join ranks k using (state)
                union all
                select case_id, rank, false from planned
            )
            select case_id, min(rank) as rank, count(*) as cells, count(*) filter (where walked) as walked from cells group by case_id
            SQL
            ,
            [null === $cases ? $project : '{' . implode(',', $cases) . '}', $project, ...$with, $project, ...$planned],
        );
        $states = CoverageState::cases();
        $outcomes = [];
        foreach ($found as $row) {
            $outcomes[$row->case_id] = [
                'outcome' => new Outcome($states[$row->rank], $row->walked === $row->cells),
                'cells' => $row->cells,
                'walked' => $row->walked,
            ];
        }

        return $outcomes;
    }
}
