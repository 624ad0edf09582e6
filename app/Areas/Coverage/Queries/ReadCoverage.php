<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Queries;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Coverage\Data\CoverageLenses;
use LucidStep\App\Areas\Coverage\Data\CoverageTree;
use LucidStep\App\Areas\Coverage\Data\RequirementRow;
use LucidStep\App\Areas\Coverage\Data\StateCount;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Data\Named;

/**
 * Reads what is proven of the requirements of a project (rules of the job, 2).
 */
final class ReadCoverage
{
    /**
     * @param  bool  $seesDefects whether whoever asks may know of defects
     */
    public function __invoke(Project $project, CoverageLens $lens, bool $seesDefects = true): CoverageTree
    {
        $found = RolledUp::of($project->id, $lens);
        $unsteady = UnsteadyCases::of($project->id, $lens);
        $defects = $seesDefects ? (new RequirementSource($project->id, $lens->at))->openDefects() : [];
        $rows = array_map(static function (object $r) use ($found, $unsteady, $defects): RequirementRow {
            $outcome = $found->outcomes[$r->id];
            $cases = $found->links[$r->id] ?? [];

            return new RequirementRow(
                $r->id,
                $r->key,
                $r->title,
                $r->parent_id,
                $r->external_id,
                $outcome->state->value,
                $outcome->cases,
                $outcome->walked,
                \count($cases),
                $found->late[$r->id] ?? 0,
                $defects[$r->id] ?? 0,
                \count(array_filter($cases, static fn(string $case): bool => isset($unsteady[$case]))),
                StateCount::all($outcome->caseCounts),
            );
        }, $found->requirements);

        return new CoverageTree(
            Carbon::parse($lens->at)->toIso8601ZuluString(),
            StateCount::all($found->counts()),
            $found->whole->cases,
            $found->whole->walked,
            $rows,
            $this->lenses($project->id),
        );
    }

    private function lenses(string $project): CoverageLenses
    {
        $named = static fn(string $table, string $order): array => array_values(
            DB::table($table)
                ->where('project_id', $project)
                ->orderBy($order)
                ->get(['id', 'name'])
                ->map(static fn(\stdClass $r): Named => new Named($r->id, $r->name))
                ->all(),
        );

        return new CoverageLenses(
            $named('releases', 'position'),
            $named('builds', 'position'),
            $named('configurations', 'position'),
            $named('milestones', 'due_on'),
        );
    }
}
