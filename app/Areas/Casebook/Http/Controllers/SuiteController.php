<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Gate;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Casebook\Actions\SaveFilter;
use LucidStep\App\Areas\Casebook\Actions\Suites;
use LucidStep\App\Areas\Casebook\Data\RequirementLine;
use LucidStep\App\Areas\Casebook\Data\SuiteDetail;
use LucidStep\App\Areas\Casebook\Data\SuiteLine;
use LucidStep\App\Areas\Casebook\Http\Requests\FilterRequest;
use LucidStep\App\Areas\Casebook\Http\Requests\SuiteRequest;
use LucidStep\App\Areas\Casebook\Queries\ReadCasebook;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\SavedFilter;
use LucidStep\App\Models\Suite;
use LucidStep\App\Support\Access\AllowedInArchive;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Access\ProjectLookup;
use LucidStep\App\Support\Data\Done;
use LucidStep\App\Support\Filters\SavedFilterLine;
use LucidStep\App\Support\Http\StampRequest;
use LucidStep\App\Support\OpenApi\Delete;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Patch;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\Core\Access\Permission;

/**
 * Suites, saved filters and requirements: ways to name a set of cases.
 */
final class SuiteController
{
    public function __construct(
        private readonly Suites $suites,
        private readonly ReadCasebook $read,
        private readonly Memberships $memberships,
    ) {}

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
    #[Needs(Permission::WriteCases)]
    public function store(SuiteRequest $request, Project $project): JsonResponse
    {
        Gate::authorize('writeCases', $project);
        if (null === $request->validated('kind')) {
            throw ValidationException::withMessages(['kind' => 'Say which kind of suite.']);
        }

        return new JsonResponse(
            $this->suites->detail($project, $this->suites->save($project, null, $request->validated()), Gate::allows('lead', $project)),
            201,
        );
    }

    #[Patch('/suites/{suite}', 'Change a suite', SuiteDetail::class, SuiteRequest::class)]
    #[Needs(Permission::WriteCases)]
    public function update(SuiteRequest $request, Suite $suite): JsonResponse
    {
        $project = $this->project($suite);
        Gate::authorize('writeCases', $project);

        return new JsonResponse(
            $this->suites->detail($project, $this->suites->save($project, $suite, $request->validated()), Gate::allows('lead', $project)),
        );
    }

    #[Post('/suites/{suite}/acceptances', 'Accept what a live suite gained and lost', SuiteDetail::class, StampRequest::class)]
    #[Needs(Permission::Lead)]
    public function accept(StampRequest $request, Suite $suite): JsonResponse
    {
        $project = $this->project($suite);
        Gate::authorize('lead', $project);
        $this->suites->accept($project, $suite);

        return new JsonResponse($this->suites->detail($project, $suite, true));
    }

    #[Delete('/suites/{suite}', 'Bin a suite; its cases stay', Done::class, StampRequest::class)]
    #[Needs(Permission::WriteCases)]
    public function destroy(StampRequest $request, Suite $suite): JsonResponse
    {
        Gate::authorize('writeCases', $this->project($suite));
        $this->suites->bin($suite);

        return new JsonResponse(new Done($suite->id, 1));
    }

    #[Post('/suites/{suite}/restorations', 'Take a suite out of the bin', Done::class, StampRequest::class)]
    #[Needs(Permission::WriteCases)]
    public function restore(StampRequest $request, Suite $suite): JsonResponse
    {
        Gate::authorize('writeCases', $this->project($suite));
        $this->suites->restore($suite);

        return new JsonResponse(new Done($suite->id, 1));
    }

    #[Get('/projects/{project}/filters', 'Saved filters: one\'s own and shared ones', SavedFilterLine::class, true)]
    public function filters(Request $request, Project $project): JsonResponse
    {
        return new JsonResponse($this->read->filters($project, $this->memberships->person($request)));
    }

    #[
        Post(
            '/projects/{project}/filters',
            'Save a filter; one of one\'s own with the same name is replaced',
            SavedFilterLine::class,
            FilterRequest::class,
            201,
        ),
    ]
    #[AllowedInArchive]
    #[Needs(Permission::Read)]
    public function keep(FilterRequest $request, Project $project, SaveFilter $save): JsonResponse
    {
        $user = $request->person();
        $shared = $request->boolean('shared');
        if ($shared) {
            Gate::authorize('writeCases', $project);
        }
        $kept = $save($project, $user, $request->string('name')->toString(), $shared, (array) $request->validated('filter'));

        return new JsonResponse(SavedFilterLine::from($kept, $user->id), 201);
    }

    #[Delete('/filters/{filter}', 'Delete a saved filter', null, StampRequest::class, 204)]
    #[Needs(Permission::Read)]
    public function drop(StampRequest $request, SavedFilter $filter, SaveFilter $save): Response
    {
        if ($filter->user_id !== $request->person()->id) {
            Gate::authorize('lead', ProjectLookup::find($filter->project_id));
        }
        $save->delete($filter);

        return new Response('', 204);
    }

    #[Get('/projects/{project}/requirements', 'Requirements, with how many cases are linked to each', RequirementLine::class, true)]
    public function requirements(Project $project): JsonResponse
    {
        return new JsonResponse($this->read->requirements($project));
    }

    private function project(Suite $suite): Project
    {
        return ProjectLookup::find($suite->project_id);
    }
}
