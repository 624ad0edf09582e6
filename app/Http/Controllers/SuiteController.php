<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Gate;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Actions\Casebook\CaseFilter;
use LucidStep\App\Actions\Casebook\KeepRequirements;
use LucidStep\App\Actions\Casebook\ReadCasebook;
use LucidStep\App\Actions\Casebook\Suites;
use LucidStep\App\Http\Docs\Delete;
use LucidStep\App\Http\Docs\Get;
use LucidStep\App\Http\Docs\Patch;
use LucidStep\App\Http\Docs\Post;
use LucidStep\App\Http\Requests\FilterRequest;
use LucidStep\App\Http\Requests\RequirementRequest;
use LucidStep\App\Http\Requests\StampRequest;
use LucidStep\App\Http\Requests\SuiteRequest;
use LucidStep\App\Http\Resources\Done;
use LucidStep\App\Http\Resources\RequirementLine;
use LucidStep\App\Http\Resources\SavedFilterLine;
use LucidStep\App\Http\Resources\SuiteDetail;
use LucidStep\App\Http\Resources\SuiteLine;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\SavedFilter;
use LucidStep\App\Models\Suite;
use LucidStep\App\Policies\Memberships;

/**
 * Suites, saved filters and requirements: ways to name a set of cases.
 */
final class SuiteController
{
    public function __construct(private readonly Suites $suites, private readonly ReadCasebook $read, private readonly Memberships $memberships)
    {
    }

    #[Get('/projects/{project}/suites', 'The suites of a project with live counts', SuiteLine::class, true)]
    public function index(Project $project): JsonResponse
    {
        return new JsonResponse($this->suites->all($project));
    }

    #[Get('/suites/{suite}', 'A suite, and what it gained or lost since it was accepted', SuiteDetail::class)]
    public function show(Suite $suite): JsonResponse
    {
        $project = $this->project($suite);

        return new JsonResponse($this->suites->detail($project, $suite, Gate::allows('lead', $project)));
    }

    #[Post('/projects/{project}/suites', 'Make a suite', SuiteDetail::class, SuiteRequest::class, 201)]
    public function store(SuiteRequest $request, Project $project): JsonResponse
    {
        Gate::authorize('writeCases', $project);
        if (null === $request->validated('kind')) {
            throw ValidationException::withMessages(['kind' => 'Say which kind of suite.']);
        }

        return new JsonResponse($this->suites->detail($project, $this->suites->save($project, null, $request->validated()), Gate::allows('lead', $project)), 201);
    }

    #[Patch('/suites/{suite}', 'Change a suite', SuiteDetail::class, SuiteRequest::class)]
    public function update(SuiteRequest $request, Suite $suite): JsonResponse
    {
        $project = $this->project($suite);
        Gate::authorize('writeCases', $project);

        return new JsonResponse($this->suites->detail($project, $this->suites->save($project, $suite, $request->validated()), Gate::allows('lead', $project)));
    }

    #[Post('/suites/{suite}/acceptances', 'Accept what a live suite gained and lost', SuiteDetail::class, StampRequest::class)]
    public function accept(StampRequest $request, Suite $suite): JsonResponse
    {
        $project = $this->project($suite);
        Gate::authorize('lead', $project);
        $this->suites->accept($project, $suite);

        return new JsonResponse($this->suites->detail($project, $suite, true));
    }

    #[Delete('/suites/{suite}', 'Bin a suite; its cases stay', Done::class, StampRequest::class)]
    public function destroy(StampRequest $request, Suite $suite): JsonResponse
    {
        Gate::authorize('writeCases', $this->project($suite));
        $this->suites->bin($suite);

        return new JsonResponse(new Done($suite->id, 1));
    }

    #[Post('/suites/{suite}/restorations', 'Take a suite out of the bin', Done::class, StampRequest::class)]
    public function restore(StampRequest $request, Suite $suite): JsonResponse
    {
        Gate::authorize('writeCases', $this->project($suite));
        $this->suites->restore($suite);

        return new JsonResponse(new Done($suite->id, 1));
    }

    #[Get('/projects/{project}/filters', 'Kept filters: one\'s own and shared ones', SavedFilterLine::class, true)]
    public function filters(Request $request, Project $project): JsonResponse
    {
        return new JsonResponse($this->read->filters($project, $this->memberships->person($request)));
    }

    #[Post('/projects/{project}/filters', 'Keep a filter; one of one\'s own with the same name is replaced', SavedFilterLine::class, FilterRequest::class, 201)]
    public function keep(FilterRequest $request, Project $project): JsonResponse
    {
        $user = $request->person();
        $shared = $request->boolean('shared');
        if ($shared) {
            Gate::authorize('writeCases', $project);
        }
        $input = (array) $request->validated('filter');
        $filter = [...CaseFilter::from($project, $input, $user->id)->asked, ...array_filter(['sort' => $input['sort'] ?? null, 'group' => $input['group'] ?? null], is_string(...))];
        unset($filter['ids'], $filter['bin']);
        $kept = SavedFilter::query()->updateOrCreate(['project_id' => $project->id, 'user_id' => $user->id, 'name' => trim($request->string('name')->toString())], ['shared' => $shared, 'filter' => $filter]);

        return new JsonResponse(new SavedFilterLine($kept->id, $kept->name, $kept->shared, true, $user->name, (object) $kept->filter), 201);
    }

    #[Delete('/filters/{filter}', 'Drop a kept filter', null, StampRequest::class, 204)]
    public function drop(StampRequest $request, SavedFilter $filter): Response
    {
        if ($filter->user_id !== $request->person()->id) {
            Gate::authorize('lead', Project::query()->findOrFail($filter->project_id));
        }
        $filter->delete();

        return new Response('', 204);
    }

    #[Get('/projects/{project}/requirements', 'Requirements, with how many cases are linked to each', RequirementLine::class, true)]
    public function requirements(Project $project): JsonResponse
    {
        return new JsonResponse($this->read->requirements($project));
    }

    #[Post('/projects/{project}/requirements', 'Make a requirement', RequirementLine::class, RequirementRequest::class, 201)]
    public function require(RequirementRequest $request, Project $project, KeepRequirements $keep): JsonResponse
    {
        Gate::authorize('writeCases', $project);
        $made = $keep->make($project, trim($request->string('title')->toString()), $request->validated('parent_id'));

        return new JsonResponse(new RequirementLine($made->id, $made->key, $made->title, $made->parent_id, 0), 201);
    }

    private function project(Suite $suite): Project
    {
        return Project::query()->findOrFail($suite->project_id);
    }
}
