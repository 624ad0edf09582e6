<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Queries;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Coverage\Data\CoverageGrid;
use LucidStep\App\Areas\Coverage\Data\RequirementStatesRow;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Data\Named;
use LucidStep\Core\Coverage\CoverageState;
use LucidStep\Core\Coverage\RequirementStates;

/**
 * Reads what each requirement showed on each build or configuration (rules of the job, 2).
 */
final class ReadCoverageGrid
{
    /** As many columns stand side by side: of builds the newest. */
    public const COLUMNS = 12;

    /**
     * @param  'build'|'configuration'  $by
     */
    public function __invoke(Project $project, CoverageLens $lens, string $by): CoverageGrid
    {
        $requirements = (new RequirementSource($project->id, $lens->at))->requirements();
        $all = 'build' === $by ? $this->builds($project->id, $lens) : $this->configurations($project->id, $lens);
        $columns = 'build' === $by ? \array_slice($all, -self::COLUMNS) : \array_slice($all, 0, self::COLUMNS);
        $parents = array_column($requirements, 'parent_id', 'id');
        $own = $this->own($project->id, $lens, $by, array_column($columns, 'id'));
        $states = array_map(static fn(Named $c): array => RequirementStates::of($parents, $own[$c->id] ?? []), $columns);
        $rows = array_map(
            static fn(object $r): RequirementStatesRow => new RequirementStatesRow(
                $r->id,
                $r->key,
                $r->title,
                $r->parent_id,
                array_map(static fn(array $column): string => $column[$r->id]->value, $states),
            ),
            $requirements,
        );

        return new CoverageGrid(Carbon::parse($lens->at)->toIso8601ZuluString(), $by, $columns, \count($all), $rows);
    }

    /**
     * @return list<Named> in their order
     */
    private function builds(string $project, CoverageLens $lens): array
    {
        $order = null === $lens->at ? 'builds p on p.id = b.id' : 'build_places p on p.build_id = b.id and ' . CellSource::held('p');
        $which = new CoverageLens($lens->release, $lens->build, at: $lens->at);
        $scope = $which->conditions('b.id', '', '');
        $found = DB::select("select b.id, b.name from builds b join {$order} where b.project_id = :project{$scope} order by p.position", [
            'project' => $project,
            ...$which->bindings(),
        ]);

        return self::named($found);
    }

    /**
     * @return list<Named> in their order
     */
    private function configurations(string $project, CoverageLens $lens): array
    {
        $which = new CoverageLens(configuration: $lens->configuration);
        $scope = $which->conditions('', 'id', '');
        $found = DB::select("select id, name from configurations where project_id = :project{$scope} order by position", [
            'project' => $project,
            ...$which->bindings(),
        ]);

        return self::named($found);
    }

    /**
     * @param  array<\stdClass>  $found
     *
     * @return list<Named>
     */
    private static function named(array $found): array
    {
        return array_values(array_map(static fn(\stdClass $r): Named => new Named($r->id, $r->name), $found));
    }

    /**
     * @param  'build'|'configuration'  $by
     * @param  list<string>  $columns ids
     *
     * @return array<string, array<string, CoverageState>> what requirements show by their own cases, by column and id
     */
    private function own(string $project, CoverageLens $lens, string $by, array $columns): array
    {
        $found = (new CellSource($project, $lens))->select(
            <<<SQL
            , finished as materialized (
                select distinct on ({$by}_id, case_id, configuration_id, row_id) {$by}_id as place, case_id, configuration_id, row_id, state
                from rounds where {$by}_id = any(cast(:columns as uuid[]))
                order by {$by}_id, case_id, configuration_id, row_id, position desc nulls last, finished_at desc, attempt_id desc
            ), planned as (
                select p.{$by}_id as place, p.case_id, p.rank from plans p
                where p.{$by}_id = any(cast(:columns as uuid[])) and not exists (select 1 from finished f where f.place = p.{$by}_id
                    and f.case_id = p.case_id and f.configuration_id is not distinct from p.configuration_id
                    and f.row_id is not distinct from p.row_id)
            ), cells as (
                select place, case_id, min(rank) as rank from (
                    select f.place, f.case_id, k.rank from finished f join ranks k using (state)
                    union all
                    select place, case_id, rank from planned
                ) x group by place, case_id
            )
            select p.id as place, l.requirement_id, min(coalesce(c.rank, (select rank from ranks where state = 'not_run'))) as rank
            from links l
            cross join unnest(cast(:columns as uuid[])) p(id)
            left join cells c on c.case_id = l.case_id and c.place = p.id
            group by p.id, l.requirement_id
            SQL
            ,
            ['columns' => '{' . implode(',', $columns) . '}'],
        );
        $states = CoverageState::cases();
        $own = [];
        foreach ($found as $row) {
            $own[$row->place][$row->requirement_id] = $states[$row->rank];
        }

        return $own;
    }
}
