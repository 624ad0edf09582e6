<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Today\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Carbon;
use LucidStep\App\Areas\Today\Actions\PersonalDay;
use LucidStep\App\Areas\Today\Data\OverviewPage;
use LucidStep\App\Areas\Today\Data\TodayPage;
use LucidStep\App\Areas\Today\Data\WalkPack;
use LucidStep\App\Areas\Today\Http\Requests\ScratchRequest;
use LucidStep\App\Areas\Today\Http\Requests\SeenRequest;
use LucidStep\App\Areas\Today\Http\Resources\ScratchNote;
use LucidStep\App\Areas\Today\Queries\ReadOverview;
use LucidStep\App\Areas\Today\Queries\ReadPack;
use LucidStep\App\Areas\Today\Queries\ReadToday;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Access\AllowedInArchive;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\App\Support\OpenApi\Put;
use LucidStep\Core\Access\Permission;

/**
 * A person's day: what is theirs, what changed of it, what their device fetches beforehand, and notes that follow them.
 */
final readonly class TodayController
{
    public function __construct(private Memberships $memberships, private PersonalDay $day) {}

    #[Get('/projects/{project}/today', 'What is mine to do now', TodayPage::class)]
    public function show(Request $request, Project $project, ReadToday $read): JsonResponse
    {
        $user = $this->memberships->person($request);

        return new JsonResponse($read($project, $user, $this->memberships->sure($user, $project->id)));
    }

    #[Get('/projects/{project}/overview', 'How the project stands, as one works with it', OverviewPage::class)]
    public function overview(Request $request, Project $project, ReadOverview $read): JsonResponse
    {
        $user = $this->memberships->person($request);

        return new JsonResponse($read($project, $user, $this->memberships->sure($user, $project->id)));
    }

    #[Post('/projects/{project}/today-seen', 'Say that one has seen what changed', null, SeenRequest::class, 204)]
    #[AllowedInArchive]
    #[Needs(Permission::Read)]
    public function seen(SeenRequest $request, Project $project): JsonResponse
    {
        $this->day->seen($project, $request->person(), Carbon::parse($request->string('as_of')->toString()));

        return new JsonResponse(null, 204);
    }

    #[Get('/projects/{project}/walk-pack', 'The next entries of mine, to walk them while the server is away', WalkPack::class)]
    public function pack(Request $request, Project $project, ReadPack $read): JsonResponse
    {
        return new JsonResponse($read($project, $this->memberships->person($request)));
    }

    #[Get('/projects/{project}/scratch', 'Notes that follow one through the day', ScratchNote::class)]
    public function scratch(Request $request, Project $project): JsonResponse
    {
        return new JsonResponse(new ScratchNote($this->day->note($project, $this->memberships->person($request))));
    }

    #[Put('/projects/{project}/scratch', 'Write those notes', ScratchNote::class, ScratchRequest::class)]
    #[AllowedInArchive]
    #[Needs(Permission::Read)]
    public function write(ScratchRequest $request, Project $project): JsonResponse
    {
        $text = (string) $request->input('text');
        $this->day->write($project, $request->person(), $text);

        return new JsonResponse(new ScratchNote($text));
    }
}
