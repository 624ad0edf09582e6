<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Actions\Casebook\ReuseShelf;
use LucidStep\App\Actions\Casebook\SaveRoutine;
use LucidStep\App\Http\Docs\Delete;
use LucidStep\App\Http\Docs\Get;
use LucidStep\App\Http\Docs\Post;
use LucidStep\App\Http\Docs\Put;
use LucidStep\App\Http\Requests\RoutineRequest;
use LucidStep\App\Http\Requests\StampRequest;
use LucidStep\App\Http\Resources\Done;
use LucidStep\App\Http\Resources\RoutineDetail;
use LucidStep\App\Http\Resources\RoutineLine;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\Routine;

/**
 * Routines: runs of steps that many cases use.
 */
final class RoutineController
{
    public function __construct(private readonly SaveRoutine $save, private readonly ReuseShelf $shelf)
    {
    }

    #[Get('/projects/{project}/routines', 'The routines of a project', RoutineLine::class, true, ['bin' => 'yes: those in the bin'])]
    public function index(Request $request, Project $project): JsonResponse
    {
        return new JsonResponse($this->shelf->routines($project, 'yes' === $request->query->getString('bin')));
    }

    #[Get('/routines/{routine}', 'A routine, and where it is used', RoutineDetail::class)]
    public function show(Routine $routine): JsonResponse
    {
        return (new JsonResponse($this->shelf->routine($routine, Gate::allows('writeCases', $this->project($routine)))))->setEtag((string) $routine->revision);
    }

    #[Post('/projects/{project}/routines', 'Make a routine', RoutineDetail::class, RoutineRequest::class, 201)]
    public function store(RoutineRequest $request, Project $project): JsonResponse
    {
        Gate::authorize('writeCases', $project);

        return new JsonResponse($this->shelf->routine($this->save->save($project, $request->person(), null, $request->validated(), null), true), 201);
    }

    #[Put('/routines/{routine}', 'Change a routine, for all who use it', RoutineDetail::class, RoutineRequest::class)]
    public function update(RoutineRequest $request, Routine $routine): JsonResponse
    {
        Gate::authorize('writeCases', $this->project($routine));

        return new JsonResponse($this->shelf->routine($this->save->save($this->project($routine), $request->person(), $routine, $request->validated(), $request->integer('revision') ?: null), true));
    }

    #[Delete('/routines/{routine}', 'Bin a routine that is used nowhere', Done::class, StampRequest::class)]
    public function destroy(StampRequest $request, Routine $routine): JsonResponse
    {
        Gate::authorize('writeCases', $this->project($routine));
        $this->save->bin($routine);

        return new JsonResponse(new Done($routine->id, $routine->revision));
    }

    #[Post('/routines/{routine}/restorations', 'Take a routine out of the bin', Done::class, StampRequest::class)]
    public function restore(StampRequest $request, Routine $routine): JsonResponse
    {
        Gate::authorize('writeCases', $this->project($routine));
        $this->save->restore($routine);

        return new JsonResponse(new Done($routine->id, $routine->revision));
    }

    private function project(Routine $routine): Project
    {
        return Project::query()->findOrFail($routine->project_id);
    }
}
