<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Areas\Setup\Actions\RemoveSetupWords;
use LucidStep\App\Areas\Setup\Actions\UndoSetupAct;
use LucidStep\App\Areas\Setup\Data\SettingLine;
use LucidStep\App\Areas\Setup\Data\SetupLog;
use LucidStep\App\Areas\Setup\Queries\FindSettings;
use LucidStep\App\Areas\Setup\Queries\ReadSetupLog;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Http\WhyRequest;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\Core\Access\Permission;

/**
 * What is set in a project, found by words; what was changed of it, and by whom.
 */
final class SetupLogController
{
    #[
        Get(
            '/projects/{project}/settings',
            'What is set in a project, found by words',
            SettingLine::class,
            query: ['q' => 'The words'],
            list: true,
        ),
    ]
    public function find(Request $request, Project $project, FindSettings $find): JsonResponse
    {
        $words = trim(mb_substr($request->query->getString('q'), 0, 100));

        return new JsonResponse('' === $words ? [] : $find($project, $words));
    }

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

        return new JsonResponse(self::log($project, $read, is_numeric($after) ? (int) $after : null));
    }

    #[
        Post(
            '/projects/{project}/setup-log/{setupAct}/undo',
            'Let what an act changed be as it was, where nobody changed it since; that is an act of its own',
            SetupLog::class,
        ),
    ]
    #[Needs(Permission::Lead)]
    public function undo(Project $project, int $setupAct, UndoSetupAct $undo, ReadSetupLog $read): JsonResponse
    {
        Gate::authorize('lead', $project);
        $undo($project, $setupAct, Gate::allows('administer', $project));

        return new JsonResponse(self::log($project, $read));
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

        return new JsonResponse(self::log($project, $read));
    }

    private static function log(Project $project, ReadSetupLog $read, ?int $after = null): SetupLog
    {
        $may = [Permission::Lead, ...Gate::allows('administer', $project) ? [Permission::Administer] : []];

        return $read($project, Gate::allows('removeContent', $project), $may, $after);
    }
}
