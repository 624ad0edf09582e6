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
 * Reads what each requirement showed on each build (rules of the job, 2).
 */
final class ReadCoverageGrid
{
    /** As many builds stand side by side: the newest. */
    public const BUILDS = 12;

    public function __invoke(Project $project, CoverageLens $lens): CoverageGrid
    {
        $requirements = (new RequirementSource($project->id, $lens->at))->requirements();
        [$builds, $all] = $this->builds($project->id, $lens);
        $parents = array_column($requirements, 'parent_id', 'id');
        $own = $this->own($project->id, $lens, array_column($builds, 'id'));
        $columns = array_map(static fn(Named $build): array => RequirementStates::of($parents, $own[$build->id] ?? []), $builds);
        $rows = array_map(
            static fn(object $r): RequirementStatesRow => new RequirementStatesRow(
                $r->id,
                $r->key,
                $r->title,
                $r->parent_id,
                array_map(static fn(array $column): string => $column[$r->id]->value, $columns),
            ),
            $requirements,
        );

        return new CoverageGrid(Carbon::parse($lens->at)->toIso8601ZuluString(), $builds, $all, $rows);
    }

    /**
     * @return array{list<Named>, int} the newest builds in their order, and how many there are
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
        $newest = array_map(static fn(\stdClass $b): Named => new Named($b->id, $b->name), \array_slice($found, -self::BUILDS));

        return [array_values($newest), \count($found)];
    }

    /**
     * @param  list<string>  $builds ids
     *
     * @return array<string, array<string, CoverageState>> what requirements show by their own cases, by build and id
     */
    private function own(string $project, CoverageLens $lens, array $builds): array
    {
        $found = (new CellSource($project, $lens))->select(
            <<<'SQL'
            , finished as materialized (
                select distinct on (build_id, case_id, configuration_id, row_id) build_id, case_id, configuration_id, row_id, state
                from rounds where build_id = any(cast(:builds as uuid[]))
                order by build_id, case_id, configuration_id, row_id, finished_at desc, attempt_id desc
            ), planned as (
                select p.build_id, p.case_id, p.rank from plans p
                where p.build_id = any(cast(:builds as uuid[])) and not exists (select 1 from finished f where f.build_id = p.build_id
                    and f.case_id = p.case_id and f.configuration_id is not distinct from p.configuration_id
                    and f.row_id is not distinct from p.row_id)
            ), cells as (
                select build_id, case_id, min(rank) as rank from (
                    select f.build_id, f.case_id, k.rank from finished f join ranks k using (state)
                    union all
                    select build_id, case_id, rank from planned
                ) x group by build_id, case_id
            )
            select b.id as build_id, l.requirement_id,
                min(coalesce(c.rank, (select rank from ranks where state = 'not_run'))) as rank
            from links l
            cross join unnest(cast(:builds as uuid[])) b(id)
            left join cells c on c.case_id = l.case_id and c.build_id = b.id
            group by b.id, l.requirement_id
            SQL
            ,
            ['builds' => '{' . implode(',', $builds) . '}'],
        );
        $states = CoverageState::cases();
        $own = [];
        foreach ($found as $row) {
            $own[$row->build_id][$row->requirement_id] = $states[$row->rank];
        }

        return $own;
    }
}
