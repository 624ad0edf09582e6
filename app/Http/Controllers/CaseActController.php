<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Actions\Casebook\ActOnCases;
use LucidStep\App\Actions\Casebook\CaseFilter;
use LucidStep\App\Http\Docs\Post;
use LucidStep\App\Http\Requests\CaseActRequest;
use LucidStep\App\Http\Requests\StampRequest;
use LucidStep\App\Http\Resources\ActDone;
use LucidStep\App\Http\Resources\ActPreview;
use LucidStep\App\Models\BulkAct;
use LucidStep\App\Models\Project;
use LucidStep\App\Policies\Memberships;

/**
 * Acts on many cases.
 */
final class CaseActController
{
    public function __construct(private readonly Memberships $memberships, private readonly ActOnCases $acts)
    {
    }

    #[Post('/projects/{project}/case-previews', 'What an act on many cases would do', ActPreview::class, CaseActRequest::class)]
    public function preview(CaseActRequest $request, Project $project): JsonResponse
    {
        return new JsonResponse($this->acts->preview($project, ...$this->arguments($request, $project)));
    }

    #[Post('/projects/{project}/case-acts', 'Edit, move, copy, bin or restore many cases', ActDone::class, CaseActRequest::class)]
    public function store(CaseActRequest $request, Project $project): JsonResponse
    {
        $arguments = $this->arguments($request, $project);
        $target = $request->validated('changes.project');
        if (\is_string($target) && $target !== $project->code) {
            Gate::authorize('writeCases', Project::query()->where('code', $target)->firstOrFail());
        }

        return new JsonResponse($this->acts->do($project, ...$arguments));
    }

    #[Post('/case-acts/{act}/undo', 'Take an act on many cases back', ActDone::class, StampRequest::class)]
    public function undo(StampRequest $request, BulkAct $act): JsonResponse
    {
        $project = Project::query()->findOrFail($act->project_id);
        Gate::authorize($act->actor_id === $request->person()->id ? 'writeCases' : 'lead', $project);

        return new JsonResponse($this->acts->undo($act, $project, $request->person()));
    }

    /**
     * @return array{user: \LucidStep\App\Models\User, role: \LucidStep\App\Models\Role, act: 'edit'|'move'|'copy'|'bin'|'restore', filter: CaseFilter, changes: array<string, mixed>}
     */
    private function arguments(CaseActRequest $request, Project $project): array
    {
        Gate::authorize('writeCases', $project);
        $user = $request->person();
        /** @var 'edit'|'move'|'copy'|'bin'|'restore' $act */
        $act = $request->string('act')->toString();
        $asked = (array) $request->validated('filter');

        return ['user' => $user, 'role' => $this->memberships->sure($user, $project->id), 'act' => $act, 'filter' => CaseFilter::from($project, 'restore' === $act ? [...$asked, 'bin' => 'yes'] : $asked, $user->id), 'changes' => (array) $request->validated('changes')];
    }
}
