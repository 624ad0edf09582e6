<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Areas\Setup\Data\SetupLog;
use LucidStep\App\Areas\Setup\Queries\ReadSetupLog;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Access\LeastRole;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\Core\Access\Role;

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
    #[LeastRole(Role::Lead)]
    public function show(Request $request, Project $project, ReadSetupLog $read): JsonResponse
    {
        Gate::authorize('lead', $project);
        $after = $request->query('after');

        return new JsonResponse($read($project, is_numeric($after) ? (int) $after : null));
    }
}
