<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Queries;

use LucidStep\Core\Coverage\CoverageState;
use LucidStep\Core\Coverage\Outcome;

/**
 * What cases show, from the cells that the database keeps beside the record. It must equal {@see \LucidStep\Core\Coverage\CaseCells}
 * from scratch.
 */
final class CaseOutcomes
{
    /** Goes on after what {@see CellSource::select} has: `per_case` (case_id, rank, cells, walked) of those that have a cell. */
    public const PER_CASE = <<<'SQL'
    , finished as materialized (
        select distinct on (case_id, configuration_id, row_id) case_id, configuration_id, row_id, state
        from rounds
        order by case_id, configuration_id, row_id, position desc nulls last, finished_at desc, attempt_id desc
    ), planned as (
        select p.case_id, min(p.rank) as rank
        from plans p
        where not exists (select 1 from finished f where f.case_id = p.case_id
            and f.configuration_id is not distinct from p.configuration_id and f.row_id is not distinct from p.row_id)
        group by p.case_id, p.configuration_id, p.row_id
    ), cells as (
        select f.case_id, k.rank, f.state not in ('in_progress', 'not_run') as walked from finished f join ranks k using (state)
        union all
        select case_id, rank, false from planned
    ), per_case as materialized (
        select case_id, min(rank) as rank, count(*) as cells, count(*) filter (where walked) as walked from cells group by case_id
    )
    SQL;

    /**
     * @param  ?list<string>  $cases ids; null: all that are linked to a requirement
     *
     * @return array<string, array{outcome: Outcome, cells: int, walked: int}> by id of the case; one without a cell is left out
     */
    public static function of(string $project, CoverageLens $lens, ?array $cases = null): array
    {
        $found = (new CellSource($project, $lens, $cases))->select(self::PER_CASE . ' select * from per_case');
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
