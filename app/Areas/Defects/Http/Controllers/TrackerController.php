<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Areas\Defects\Actions\SendAgain;
use LucidStep\App\Areas\Defects\Actions\SetUpTracker;
use LucidStep\App\Areas\Defects\Data\DefectDetail;
use LucidStep\App\Areas\Defects\Data\TrackerEvent;
use LucidStep\App\Areas\Defects\Data\TrackerSecret;
use LucidStep\App\Areas\Defects\Data\TrackerSetup;
use LucidStep\App\Areas\Defects\Data\TrackerTry;
use LucidStep\App\Areas\Defects\Exceptions\DefectConflict;
use LucidStep\App\Areas\Defects\Http\Requests\TrackerRequest;
use LucidStep\App\Areas\Defects\Queries\ReadDefect;
use LucidStep\App\Areas\Defects\Queries\ReadTracker;
use LucidStep\App\Areas\Defects\Tracker\ReceiveWebhook;
use LucidStep\App\Areas\Defects\Tracker\TrackerQueue;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\TrackerCall;
use LucidStep\App\Models\TrackerConnection;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Http\StampRequest;
use LucidStep\App\Support\OpenApi\Delete;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Patch;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\App\Support\Problems\Problem;
use LucidStep\Core\Access\Permission;

/**
 * The tracker outside: set up, tried out, and what is on its way there.
 */
final readonly class TrackerController
{
    use AnswersDefect;

    public function __construct(private ReadDefect $read, private SetUpTracker $setUp) {}

    #[Get('/projects/{project}/tracker', 'The tracker outside, and what waits to be told to it', TrackerSetup::class)]
    #[Needs(Permission::Administer)]
    public function show(Project $project): JsonResponse
    {
        Gate::authorize('administer', $project);

        return new JsonResponse(ReadTracker::ofProject($project));
    }

    #[Patch('/projects/{project}/tracker', 'Set up the tracker outside', TrackerSetup::class, TrackerRequest::class)]
    #[Needs(Permission::Administer)]
    public function save(TrackerRequest $request, Project $project): JsonResponse
    {
        Gate::authorize('administer', $project);
        $all = (array) $request->validated();
        $this->setUp->save($project, [
            ...$request->filled('address') ? ['address' => $request->string('address')->toString()] : [],
            ...$request->filled('token') ? ['token' => $request->string('token')->toString()] : [],
            ...$request->has('enabled') ? ['enabled' => $request->boolean('enabled')] : [],
            ...$request->has('sends_each') ? ['sends_each' => $request->boolean('sends_each')] : [],
            ...isset($all['mapping']) ? ['mapping' => (array) $all['mapping']] : [],
        ]);

        return new JsonResponse(ReadTracker::ofProject($project));
    }

    #[Delete('/projects/{project}/tracker', 'Use no tracker outside any more', TrackerSetup::class, StampRequest::class)]
    #[Needs(Permission::Administer)]
    public function remove(StampRequest $request, Project $project): JsonResponse
    {
        Gate::authorize('administer', $project);
        $this->setUp->remove($project);

        return new JsonResponse(ReadTracker::ofProject($project));
    }

    #[Post('/projects/{project}/tracker-tries', 'Send a test report, and show the answer', TrackerTry::class, StampRequest::class)]
    #[Needs(Permission::Administer)]
    public function try(StampRequest $request, Project $project): JsonResponse
    {
        Gate::authorize('administer', $project);

        return new JsonResponse($this->setUp->try($this->connection($project)));
    }

    #[
        Post(
            '/projects/{project}/tracker-secrets',
            'A new secret with which the tracker signs what it tells; shown once',
            TrackerSecret::class,
            StampRequest::class,
            201,
        ),
    ]
    #[Needs(Permission::Administer)]
    public function secret(StampRequest $request, Project $project): JsonResponse
    {
        Gate::authorize('administer', $project);

        return new JsonResponse(new TrackerSecret($this->setUp->renewSecret($this->connection($project))), 201);
    }

    #[Post('/defects/{defect}/tracker-calls', 'File it in the tracker outside', DefectDetail::class, StampRequest::class, 201)]
    #[Needs(Permission::FileDefects)]
    public function file(StampRequest $request, Defect $defect, TrackerQueue $queue): JsonResponse
    {
        Gate::authorize('link', $defect);
        if (null === TrackerQueue::connection($defect->project_id)) {
            throw DefectConflict::noTracker();
        }
        $queue->file($defect, $request->person());

        return $this->answer($defect, 201);
    }

    #[Post('/tracker-calls/{call}/repetitions', 'Send it to the tracker again, at once', DefectDetail::class, StampRequest::class)]
    #[Needs(Permission::FileDefects)]
    public function again(StampRequest $request, TrackerCall $call, SendAgain $again): JsonResponse
    {
        Gate::authorize('link', $call->defect);

        return $this->answer($again($call)->defect);
    }

    #[Delete('/tracker-calls/{call}', 'Leave it out: what comes after it may go', DefectDetail::class, StampRequest::class)]
    #[Needs(Permission::FileDefects)]
    public function leaveOut(StampRequest $request, TrackerCall $call, SendAgain $again): JsonResponse
    {
        Gate::authorize('link', $call->defect);

        return $this->answer($again->leaveOut($call)->defect);
    }

    /**
     * The tracker tells of a change by itself: no session, a signature instead (docs/defects.md).
     */
    #[
        Post(
            '/tracker-webhooks/{connection}',
            'A tracker tells of a change; signed by its secret, in headers',
            null,
            TrackerEvent::class,
            204,
        ),
    ]
    public function webhook(Request $request, string $connection, ReceiveWebhook $receive): Response|JsonResponse
    {
        $isTaken = $receive(
            $connection,
            $request->headers->get('X-Lucid-Time') ?? '',
            $request->headers->get('X-Lucid-Signature') ?? '',
            $request->headers->get('X-Lucid-Event') ?? '',
            $request->getContent(),
        );

        return $isTaken ? new Response('', 204) : Problem::notFound()->toResponse($request);
    }

    private function connection(Project $project): TrackerConnection
    {
        return TrackerConnection::query()->where('project_id', $project->id)->first() ?? throw DefectConflict::noTracker();
    }
}
