<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Http\Controllers;

use Illuminate\Http\Response;
use LucidStep\App\Areas\Coverage\Data\CoverageGrid;
use LucidStep\App\Areas\Coverage\Data\CoverageTree;
use LucidStep\App\Areas\Coverage\Data\CoverageTrend;
use LucidStep\App\Areas\Coverage\Http\Requests\GridRequest;
use LucidStep\App\Areas\Coverage\Http\Requests\LensRequest;
use LucidStep\App\Areas\Coverage\Http\Requests\TrendRequest;
use LucidStep\App\Areas\Coverage\Queries\KeptCoverage;
use LucidStep\App\Areas\Coverage\Queries\ReadCoverage;
use LucidStep\App\Areas\Coverage\Queries\ReadCoverageGrid;
use LucidStep\App\Areas\Coverage\Queries\ReadCoverageTrend;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\Core\Access\Permission;

/**
 * What is proven of the requirements of a project: now, on each build or configuration, and day by day.
 */
final readonly class CoverageController
{
    public function __construct(private KeptCoverage $kept, private Memberships $memberships) {}

    #[Get('/projects/{project}/coverage', 'What is proven of the requirements', CoverageTree::class, query: LensRequest::QUERY)]
    #[Needs(Permission::Read)]
    public function tree(LensRequest $request, Project $project, ReadCoverage $read): Response
    {
        $lens = $request->lens($project);
        $seesDefects = $this->memberships->may($request->person(), $project->id, Permission::SeeEvidence);
        $what = $seesDefects ? 'tree' : 'tree without defects';

        return $this->packed($request, ($this->kept)($project, $what, $lens, static fn() => $read($project, $lens, $seesDefects)));
    }

    #[
        Get(
            '/projects/{project}/coverage/grid',
            'What each requirement shows on each build or configuration',
            CoverageGrid::class,
            query: GridRequest::QUERY,
        ),
    ]
    #[Needs(Permission::Read)]
    public function grid(GridRequest $request, Project $project, ReadCoverageGrid $read): Response
    {
        $lens = $request->lens($project);

        $by = $request->by();

        return $this->packed($request, ($this->kept)($project, "grid {$by}", $lens, static fn() => $read($project, $lens, $by)));
    }

    #[Get('/projects/{project}/coverage/trend', 'What was proven day by day', CoverageTrend::class, query: TrendRequest::QUERY)]
    #[Needs(Permission::Read)]
    public function trend(TrendRequest $request, Project $project, ReadCoverageTrend $read): Response
    {
        $lens = $request->lens($project);
        $days = $request->days();
        $counted = static fn(): CoverageTrend => $read($project, $lens, $days);
        $isWhole = static fn(CoverageTrend $trend): bool => 0 === $trend->missing;

        return $this->packed($request, ($this->kept)($project, "trend {$days}", $lens, $counted, $isWhole));
    }

    /**
     * @param  string  $packed JSON (RFC 1952)
     */
    private function packed(LensRequest $request, string $packed): Response
    {
        $takes = \in_array('gzip', $request->getEncodings(), true);

        return new Response($takes ? $packed : gzdecode($packed), 200, [
            'Content-Type' => 'application/json',
            'Vary' => 'Accept-Encoding',
            ...$takes ? ['Content-Encoding' => 'gzip'] : [],
        ]);
    }
}
