<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Queries;

use LucidStep\Core\Results\CellResult;
use LucidStep\Core\Results\Flips;
use LucidStep\Core\Verdict\Verdict;

/**
 * Which linked cases change between pass and fail without a reason that shows.
 */
final class UnsteadyCases
{
    /**
     * @param  ?list<string>  $cases ids; null: all that are linked to a requirement
     *
     * @return array<string, true> ids of cases that have an unsteady cell
     */
    public static function of(string $project, CoverageLens $lens, ?array $cases = null): array
    {
        $held = null === $lens->at ? 'c.until is null' : CellSource::held('c');
        $order =
            null === $lens->at ? 'builds b on b.id = r.build_id' : 'build_places b on b.build_id = r.build_id and ' . CellSource::held('b');
        $scope = $lens->conditions('c.build_id', 'c.configuration_id', 'y.milestone_id');
        // One that only passes or only fails is not asked of further.
        $results = (new CellSource($project, $lens, $cases))->select(
            <<<SQL
            , results as materialized (
                select c.case_id, c.configuration_id, c.row_id, c.state, c.build_id, c.case_version, c.finished_at, c.attempt_id
                from round_outcomes c
                join linked l on l.id = c.case_id
                join cycles y on y.id = c.cycle_id
                where c.project_id = :project and {$held} and c.state in ('pass', 'fail'){$scope}
            ), mixed as (
                select case_id, configuration_id, row_id from results
                group by case_id, configuration_id, row_id having min(state) <> max(state) and count(*) > 2
            )
            select r.*, concat(r.case_id, '/', r.configuration_id, '/', r.row_id) as cell
            from results r
            join mixed m on m.case_id = r.case_id and m.configuration_id is not distinct from r.configuration_id
                and m.row_id is not distinct from r.row_id
            left join {$order}
            order by b.position nulls first, r.finished_at, r.attempt_id
            SQL
            ,
        );
        $cells = [];
        foreach ($results as $r) {
            $cells[$r->cell][] = new CellResult(Verdict::from($r->state), $r->build_id, $r->case_version);
        }
        $unsteady = [];
        foreach ($cells as $cell => $of) {
            if ((new Flips($of))->isUnsteady()) {
                $unsteady[explode('/', $cell)[0]] = true;
            }
        }

        return $unsteady;
    }
}
