<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Areas\Cycles\Actions\CloneCycles;
use LucidStep\App\Areas\Cycles\Actions\Milestones;
use LucidStep\App\Areas\Cycles\Data\ClonePreview;
use LucidStep\App\Areas\Cycles\Data\MilestoneLine;
use LucidStep\App\Areas\Cycles\Http\Requests\CloneRequest;
use LucidStep\App\Areas\Cycles\Http\Requests\MilestoneRequest;
use LucidStep\App\Models\Milestone;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Access\AllowedInArchive;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Access\ProjectLookup;
use LucidStep\App\Support\OpenApi\Delete;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Patch;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\Core\Access\Permission;

/**
 * Dated goals that hold cycles.
 */
final readonly class MilestoneController
{
    public function __construct(private Milestones $milestones) {}

    #[Get('/projects/{project}/milestones', 'The milestones of a project, the one due first at the top', MilestoneLine::class, true)]
    public function index(Project $project): JsonResponse
    {
        return new JsonResponse($this->milestones->all($project));
    }

    #[Post('/projects/{project}/milestones', 'Make a milestone', MilestoneLine::class, MilestoneRequest::class, 201)]
    #[Needs(Permission::Lead)]
    public function store(MilestoneRequest $request, Project $project): JsonResponse
    {
        Gate::authorize('lead', $project);

        return new JsonResponse(Milestones::line($this->milestones->write($project, $request->validated())), 201);
    }

    #[Patch('/milestones/{milestone}', 'Change a milestone', MilestoneLine::class, MilestoneRequest::class)]
    #[Needs(Permission::Lead)]
    public function update(MilestoneRequest $request, Milestone $milestone): JsonResponse
    {
        $project = $this->lead($milestone);

        return new JsonResponse(Milestones::line($this->milestones->write($project, $request->validated(), $milestone)));
    }

    #[Delete('/milestones/{milestone}', 'Take a milestone out', status: 204)]
    #[Needs(Permission::Lead)]
    public function destroy(Milestone $milestone): Response
    {
        $this->lead($milestone);
        $this->milestones->remove($milestone);

        return new Response(status: 204);
    }

    #[
        Post(
            '/milestones/{milestone}/clone-previews',
            'Preview a clone of a milestone: old and new dates',
            ClonePreview::class,
            CloneRequest::class,
        ),
    ]
    #[AllowedInArchive]
    #[Needs(Permission::Lead)]
    public function previewAgain(CloneRequest $request, Milestone $milestone, CloneCycles $clone): JsonResponse
    {
        return new JsonResponse($clone->preview($milestone, $request->options($milestone)));
    }

    #[
        Post(
            '/milestones/{milestone}/clones',
            'Clone a milestone with its cycles, all dates moved together',
            ClonePreview::class,
            CloneRequest::class,
            201,
        ),
    ]
    #[Needs(Permission::Lead)]
    public function clone(CloneRequest $request, Milestone $milestone, CloneCycles $clone): JsonResponse
    {
        $this->lead($milestone);
        $how = $request->options($milestone);
        $preview = $clone->preview($milestone, $how);
        $clone->do($milestone, $request->person(), $how);

        return new JsonResponse($preview, 201);
    }

    private function lead(Milestone $milestone): Project
    {
        $project = ProjectLookup::find($milestone->project_id);
        Gate::authorize('lead', $project);

        return $project;
    }
}
