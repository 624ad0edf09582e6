<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Http\Controllers;

use Illuminate\Http\JsonResponse;
use LucidStep\App\Areas\Coverage\Actions\SaveRequirement;
use LucidStep\App\Areas\Coverage\Data\RequirementDetail;
use LucidStep\App\Areas\Coverage\Http\Requests\ConfirmCasesRequest;
use LucidStep\App\Areas\Coverage\Http\Requests\LensRequest;
use LucidStep\App\Areas\Coverage\Http\Requests\MoveRequirementRequest;
use LucidStep\App\Areas\Coverage\Http\Requests\RequirementRequest;
use LucidStep\App\Areas\Coverage\Queries\CoverageLens;
use LucidStep\App\Areas\Coverage\Queries\ReadRequirement;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\Requirement;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Http\StampRequest;
use LucidStep\App\Support\OpenApi\Delete;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\App\Support\OpenApi\Put;
use LucidStep\Core\Access\Permission;

/**
 * Requirements in their tree.
 */
final readonly class RequirementController
{
    public function __construct(private SaveRequirement $save, private ReadRequirement $read, private Memberships $memberships) {}

    #[
        Get(
            '/requirements/{requirement}',
            'A requirement with its words, its cases and what became of it',
            RequirementDetail::class,
            query: LensRequest::QUERY,
        ),
    ]
    #[Needs(Permission::Read)]
    public function show(LensRequest $request, Requirement $requirement): JsonResponse
    {
        $project = Project::query()->findOrFail($requirement->project_id);
        $seesDefects = $this->memberships->may($request->person(), $project->id, Permission::SeeEvidence);

        return new JsonResponse(($this->read)($requirement, $request->lens($project), $seesDefects));
    }

    #[Post('/projects/{project}/requirements', 'Make a requirement', RequirementDetail::class, RequirementRequest::class, 201)]
    #[Needs(Permission::WriteCases)]
    public function store(RequirementRequest $request, Project $project): JsonResponse
    {
        $made = $this->save->make($project, $request->person(), $request->words(), $request->validated('parent_id'));

        return new JsonResponse(($this->read)($made, new CoverageLens()), 201);
    }

    #[Put('/requirements/{requirement}', 'Change what a requirement says', RequirementDetail::class, RequirementRequest::class)]
    #[Needs(Permission::WriteCases)]
    public function update(RequirementRequest $request, Requirement $requirement): JsonResponse
    {
        $words = $request->words($requirement->details);

        $began = $request->filled('revision') ? $request->integer('revision') : null;

        return $this->now($this->save->change($requirement, $request->person(), $words, $began));
    }

    #[
        Post(
            '/requirements/{requirement}/moves',
            'Move a requirement, with all below it',
            RequirementDetail::class,
            MoveRequirementRequest::class,
        ),
    ]
    #[Needs(Permission::WriteCases)]
    public function move(MoveRequirementRequest $request, Requirement $requirement): JsonResponse
    {
        $this->save->move($requirement, $request->person(), $request->validated('parent_id'), $request->validated('before_id'));

        return $this->now($requirement->refresh());
    }

    #[
        Delete(
            '/requirements/{requirement}',
            'Say that it need not hold any more; its links and its history stay',
            RequirementDetail::class,
            StampRequest::class,
        ),
    ]
    #[Needs(Permission::WriteCases)]
    public function drop(StampRequest $request, Requirement $requirement): JsonResponse
    {
        return $this->now($this->save->drop($requirement, $request->person(), true));
    }

    #[Post('/requirements/{requirement}/restorations', 'Take it up again', RequirementDetail::class, StampRequest::class)]
    #[Needs(Permission::WriteCases)]
    public function restore(StampRequest $request, Requirement $requirement): JsonResponse
    {
        return $this->now($this->save->drop($requirement, $request->person(), false));
    }

    #[
        Post(
            '/requirements/{requirement}/confirmations',
            'Say that linked cases fit its words as they are now',
            RequirementDetail::class,
            ConfirmCasesRequest::class,
        ),
    ]
    #[Needs(Permission::WriteCases)]
    public function confirm(ConfirmCasesRequest $request, Requirement $requirement): JsonResponse
    {
        $this->save->confirm($requirement, $request->person(), $request->validated('cases'));

        return $this->now($requirement->refresh());
    }

    private function now(Requirement $requirement): JsonResponse
    {
        return new JsonResponse(($this->read)($requirement, new CoverageLens()));
    }
}
