<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Areas\Casebook\Actions\SaveRoutine;
use LucidStep\App\Areas\Casebook\Data\RoutineDetail;
use LucidStep\App\Areas\Casebook\Data\RoutineLine;
use LucidStep\App\Areas\Casebook\Http\Requests\RoutineRequest;
use LucidStep\App\Areas\Casebook\Queries\RoutineAndTableQueries;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\Routine;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Access\ProjectLookup;
use LucidStep\App\Support\Data\Done;
use LucidStep\App\Support\Http\StampRequest;
use LucidStep\App\Support\OpenApi\Delete;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\App\Support\OpenApi\Put;
use LucidStep\Core\Access\Permission;

/**
 * Routines: runs of steps that many cases use.
 */
final class RoutineController
{
    public function __construct(private readonly SaveRoutine $save, private readonly RoutineAndTableQueries $shelf) {}

    #[Get('/projects/{project}/routines', 'The routines of a project', RoutineLine::class, true, ['bin' => 'yes: those in the bin'])]
    public function index(Request $request, Project $project): JsonResponse
    {
        return new JsonResponse($this->shelf->routines($project, 'yes' === $request->query->getString('bin')));
    }

    #[Get('/routines/{routine}', 'A routine, and where it is used', RoutineDetail::class)]
    public function show(Routine $routine): JsonResponse
    {
        return (new JsonResponse($this->shelf->routine($routine, Gate::allows('writeCases', $this->project($routine)))))->setEtag(
            (string) $routine->revision,
        );
    }

    #[Post('/projects/{project}/routines', 'Make a routine', RoutineDetail::class, RoutineRequest::class, 201)]
    #[Needs(Permission::WriteCases)]
    public function store(RoutineRequest $request, Project $project): JsonResponse
    {
        Gate::authorize('writeCases', $project);

        return new JsonResponse(
            $this->shelf->routine($this->save->save($project, $request->person(), null, $request->validated(), null), true),
            201,
        );
    }

    #[Put('/routines/{routine}', 'Change a routine, for all who use it', RoutineDetail::class, RoutineRequest::class)]
    #[Needs(Permission::WriteCases)]
    public function update(RoutineRequest $request, Routine $routine): JsonResponse
    {
        Gate::authorize('writeCases', $this->project($routine));

        return new JsonResponse(
            $this->shelf->routine(
                $this->save->save(
                    $this->project($routine),
                    $request->person(),
                    $routine,
                    $request->validated(),
                    $request->integer('revision') ?: null,
                ),
                true,
            ),
        );
    }

    #[Delete('/routines/{routine}', 'Bin a routine that is used nowhere', Done::class, StampRequest::class)]
    #[Needs(Permission::WriteCases)]
    public function destroy(StampRequest $request, Routine $routine): JsonResponse
    {
        Gate::authorize('writeCases', $this->project($routine));
        $this->save->bin($routine);

        return new JsonResponse(new Done($routine->id, $routine->revision));
    }

    #[Post('/routines/{routine}/restorations', 'Take a routine out of the bin', Done::class, StampRequest::class)]
    #[Needs(Permission::WriteCases)]
    public function restore(StampRequest $request, Routine $routine): JsonResponse
    {
        Gate::authorize('writeCases', $this->project($routine));
        $this->save->restore($routine);

        return new JsonResponse(new Done($routine->id, $routine->revision));
    }

    private function project(Routine $routine): Project
    {
        return ProjectLookup::find($routine->project_id);
    }
}
