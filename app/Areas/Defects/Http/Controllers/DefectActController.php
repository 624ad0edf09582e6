<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Areas\Defects\Actions\EditManyDefects;
use LucidStep\App\Areas\Defects\Data\DefectActPreview;
use LucidStep\App\Areas\Defects\Data\DefectActResult;
use LucidStep\App\Areas\Defects\Http\Requests\DefectActRequest;
use LucidStep\App\Areas\Defects\Queries\DefectFilter;
use LucidStep\App\Models\BulkAct;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Access\ProjectLookup;
use LucidStep\App\Support\Http\StampRequest;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\Core\Access\Permission;

/**
 * One act on many defects, seen beforehand, done, and taken back.
 */
final readonly class DefectActController
{
    public function __construct(private EditManyDefects $acts) {}

    #[
        Post(
            '/projects/{project}/defect-act-previews',
            'What an act on many defects would do',
            DefectActPreview::class,
            DefectActRequest::class,
        ),
    ]
    #[Needs(Permission::WorkOnDefects)]
    public function preview(DefectActRequest $request, Project $project): JsonResponse
    {
        return new JsonResponse($this->acts->preview($project, ...$this->arguments($request, $project)));
    }

    #[Post('/projects/{project}/defect-acts', 'Change many defects', DefectActResult::class, DefectActRequest::class)]
    #[Needs(Permission::WorkOnDefects)]
    public function store(DefectActRequest $request, Project $project): JsonResponse
    {
        return new JsonResponse(($this->acts)($project, ...$this->arguments($request, $project)));
    }

    #[Post('/defect-acts/{defectAct}/undo', 'Undo a change of many defects', DefectActResult::class, StampRequest::class)]
    #[Needs(Permission::WorkOnDefects)]
    public function undo(StampRequest $request, BulkAct $defectAct): JsonResponse
    {
        $project = ProjectLookup::find($defectAct->project_id);
        Gate::authorize($defectAct->actor_id === $request->person()->id ? 'workOnDefects' : 'lead', $project);

        return new JsonResponse($this->acts->undo($defectAct, $project, $request->person()));
    }

    /**
     * @return array{\LucidStep\App\Models\User, DefectFilter, \LucidStep\App\Areas\Defects\Data\ManyChanges, bool}
     */
    private function arguments(DefectActRequest $request, Project $project): array
    {
        Gate::authorize('workOnDefects', $project);

        return [
            $request->person(),
            DefectFilter::from($project, $request->person(), (array) $request->validated('filter')),
            $request->changes($project),
            Gate::allows('fileDefects', $project),
        ];
    }
}
