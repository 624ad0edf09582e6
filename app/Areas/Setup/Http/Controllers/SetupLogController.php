<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Areas\Setup\Actions\RemoveSetupWords;
use LucidStep\App\Areas\Setup\Data\SetupLog;
use LucidStep\App\Areas\Setup\Queries\ReadSetupLog;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Http\WhyRequest;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\Core\Access\Permission;

/**
 * What was changed in the setup of a project, and by whom.
 */
final class SetupLogController
{
    #[
        Get('/projects/{project}/setup-log', 'What was changed in the setup, in policies and in milestones', SetupLog::class, false, [
            'after' => 'the `next` of the window before',
        ]),
    ]
    #[Needs(Permission::Lead)]
    public function show(Request $request, Project $project, ReadSetupLog $read): JsonResponse
    {
        Gate::authorize('lead', $project);
        $after = $request->query('after');

        return new JsonResponse($read($project, Gate::allows('removeContent', $project), is_numeric($after) ? (int) $after : null));
    }

    #[
        Post(
            '/projects/{project}/setup-log/{setupAct}/removals',
            'Take out of the log what was written in an act and stands in the setup no more; the trace stays',
            SetupLog::class,
            WhyRequest::class,
        ),
    ]
    #[Needs(Permission::RemoveContent)]
    public function remove(WhyRequest $request, Project $project, int $setupAct, RemoveSetupWords $remove, ReadSetupLog $read): JsonResponse
    {
        Gate::authorize('removeContent', $project);
        $remove($project, $setupAct, $request->person(), $request->string('reason')->trim()->toString());

        return new JsonResponse($read($project, true));
    }
}
