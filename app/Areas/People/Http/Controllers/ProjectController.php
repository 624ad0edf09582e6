<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use LucidStep\App\Areas\People\Data\ProjectPage;
use LucidStep\App\Areas\People\Data\ProjectSummary;
use LucidStep\App\Areas\People\Queries\ReadProjects;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\Changes\ChangeFeed;
use LucidStep\App\Support\Changes\ReadChanges;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\Core\Access\Role;

/**
 * Projects, and what changed in them.
 */
final class ProjectController
{
    #[Get('/projects', 'The projects one has a part in', ProjectSummary::class, true)]
    public function index(Request $request, ReadProjects $read): JsonResponse
    {
        return new JsonResponse($read->of($this->user($request)));
    }

    #[Get('/projects/{project}', 'A project with its builds and people', ProjectPage::class)]
    public function show(Request $request, Project $project, Memberships $memberships, ReadProjects $read): JsonResponse
    {
        return new JsonResponse($read->page($project, $this->role($request, $project, $memberships)));
    }

    #[
        Get(
            '/projects/{project}/changes',
            'What changed since a place in the feed',
            ChangeFeed::class,
            query: ['after' => 'The cursor of the last answer; without it only the place now is told'],
        ),
    ]
    public function changes(Request $request, Project $project, ReadChanges $read): Response|JsonResponse
    {
        $feed = $read($project, $request->query->getString('after') ?: null);

        return null === $feed ? new Response('', 304) : new JsonResponse($feed);
    }

    private function role(Request $request, Project $project, Memberships $memberships): Role
    {
        return $memberships->role($this->user($request), $project->id) ?? throw new \LogicException('The address lets strangers in.');
    }

    private function user(Request $request): User
    {
        $user = $request->user();

        return $user instanceof User ? $user : throw new \LogicException('Guests do not come here.');
    }
}
