<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Queries;

use LucidStep\Core\Coverage\CoverageState;

/**
 * What the requirements of a project come to in numbers alone: the same as {@see RolledUp} says, without what each of them shows.
 */
final readonly class CoverageCounts
{
    /**
     * @param  array<string, int>  $counts how many requirements that have cases or none below them show which state
     * @param  int  $cases different ones that are linked
     * @param  int  $walked of these
     */
    private function __construct(public array $counts, public int $cases, public int $walked) {}

    public static function of(string $project, CoverageLens $lens): self
    {
        $found = (new CellSource($project, $lens))->select(
            CaseOutcomes::PER_CASE .
                <<<'SQL'
                , own as (
                    select l.requirement_id, l.case_id, coalesce(c.rank, (select rank from ranks where state = 'not_run')) as rank,
                        coalesce(c.walked = c.cells, false) as walked
                    from links l left join per_case c on c.case_id = l.case_id
                )
                select requirement_id, min(rank) as rank, null as cases, null as walked from own group by requirement_id
                union all
                select null, null, count(distinct case_id), count(distinct case_id) filter (where walked) from own
                SQL,
        );
        $states = CoverageState::cases();
        $own = [];
        $cases = $walked = 0;
        foreach ($found as $row) {
            if (null === $row->requirement_id) {
                [$cases, $walked] = [$row->cases, $row->walked];
            } else {
                $own[$row->requirement_id] = $states[$row->rank];
            }
        }
        $requirements = (new RequirementSource($project, $lens->at))->requirements();
        $above = array_flip(array_filter(array_column($requirements, 'parent_id')));
        $counts = [];
        foreach ($requirements as $requirement) {
            $state = $own[$requirement->id] ?? (isset($above[$requirement->id]) ? null : CoverageState::Uncovered);
            if (null !== $state) {
                $counts[$state->value] = ($counts[$state->value] ?? 0) + 1;
            }
        }

        return new self($counts, $cases, $walked);
    }
}
