<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Carbon;
use LucidStep\App\Actions\Today\ReadPack;
use LucidStep\App\Actions\Today\ReadToday;
use LucidStep\App\Http\Docs\Get;
use LucidStep\App\Http\Docs\Post;
use LucidStep\App\Http\Docs\Put;
use LucidStep\App\Http\Requests\ScratchRequest;
use LucidStep\App\Http\Requests\SeenRequest;
use LucidStep\App\Http\Resources\ScratchNote;
use LucidStep\App\Http\Resources\TodayPage;
use LucidStep\App\Http\Resources\WalkPack;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;
use LucidStep\App\Policies\Memberships;

/**
 * A person's day: what is theirs, what changed of it, what their device fetches beforehand, and notes that follow them.
 */
final readonly class TodayController
{
    public function __construct(private Memberships $memberships)
    {
    }

    #[Get('/projects/{project}/today', 'What is mine to do now', TodayPage::class)]
    public function show(Request $request, Project $project, ReadToday $read): JsonResponse
    {
        $user = $this->memberships->person($request);

        return new JsonResponse($read($project, $user, $this->memberships->sure($user, $project->id)));
    }

    #[Post('/projects/{project}/today-seen', 'Say that one has seen what changed', null, SeenRequest::class, 204)]
    public function seen(SeenRequest $request, Project $project): JsonResponse
    {
        Membership::query()->where('project_id', $project->id)->where('user_id', $request->person()->id)->update(['today_seen_at' => Carbon::parse($request->string('as_of')->toString())->utc()->format('Y-m-d H:i:s.uP')]);

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
        return new JsonResponse(new ScratchNote((string) Membership::query()->where('project_id', $project->id)->where('user_id', $this->memberships->person($request)->id)->value('scratch')));
    }

    #[Put('/projects/{project}/scratch', 'Write those notes', ScratchNote::class, ScratchRequest::class)]
    public function write(ScratchRequest $request, Project $project): JsonResponse
    {
        $text = (string) $request->input('text');
        Membership::query()->where('project_id', $project->id)->where('user_id', $request->person()->id)->update(['scratch' => $text]);

        return new JsonResponse(new ScratchNote($text));
    }
}
