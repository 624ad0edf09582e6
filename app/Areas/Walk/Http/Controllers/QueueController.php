<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Areas\Cycles\Actions\BlockDependents;
use LucidStep\App\Areas\Cycles\Data\BlockPreview;
use LucidStep\App\Areas\Walk\Actions\DecideQueueItems;
use LucidStep\App\Areas\Walk\Actions\TakeNewVersion;
use LucidStep\App\Areas\Walk\Data\EntryDetail;
use LucidStep\App\Areas\Walk\Data\LateDecisionResult;
use LucidStep\App\Areas\Walk\Data\LeadQueue;
use LucidStep\App\Areas\Walk\Data\NewVersionPreview;
use LucidStep\App\Areas\Walk\Http\Requests\LateDecisionRequest;
use LucidStep\App\Areas\Walk\Http\Requests\LookRequest;
use LucidStep\App\Areas\Walk\Http\Requests\StopsRequest;
use LucidStep\App\Areas\Walk\Queries\ReadEntry;
use LucidStep\App\Areas\Walk\Queries\ReadQueue;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\LateCommand;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Access\ProjectLookup;
use LucidStep\App\Support\Http\StampRequest;
use LucidStep\App\Support\OpenApi\Delete;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\Core\Access\Permission;

/**
 * What waits for a lead, and what is decided about an entry on the way.
 */
final readonly class QueueController
{
    public function __construct(private DecideQueueItems $judge, private ReadEntry $read) {}

    #[Get('/projects/{project}/queue', 'What waits for a lead', LeadQueue::class)]
    public function index(Project $project, ReadQueue $read): JsonResponse
    {
        Gate::authorize('lead', $project);

        return new JsonResponse($read($project));
    }

    #[Post('/entries/{entry}/looks', 'Hand an entry to a lead for a look', EntryDetail::class, LookRequest::class, 201)]
    #[Needs(Permission::Record)]
    public function ask(LookRequest $request, Entry $entry): JsonResponse
    {
        Gate::authorize('walk', $entry);

        return new JsonResponse(($this->read)($this->judge->ask($entry, $request->person(), $request->string('note')->toString())), 201);
    }

    #[Post('/entries/{entry}/looked', 'A lead has looked at an entry', EntryDetail::class, StampRequest::class)]
    #[Needs(Permission::Lead)]
    public function looked(StampRequest $request, Entry $entry): JsonResponse
    {
        Gate::authorize('askRetest', $entry);

        return new JsonResponse(($this->read)($this->judge->looked($entry)));
    }

    #[Post('/attempts/{attempt}/time-seen', 'A lead has seen a corrected time', null, StampRequest::class, 204)]
    #[Needs(Permission::Lead)]
    public function timeSeen(StampRequest $request, Attempt $attempt): JsonResponse
    {
        Gate::authorize('lead', ProjectLookup::find($attempt->project_id));
        $this->judge->timeSeen($attempt);

        return new JsonResponse(null, 204);
    }

    #[
        Post(
            '/late-commands/{lateCommand}/judgements',
            'Accept a late command into the record, or set it aside; what the rules refuse is named',
            LateDecisionResult::class,
            LateDecisionRequest::class,
        ),
    ]
    #[Needs(Permission::Lead)]
    public function late(LateDecisionRequest $request, LateCommand $lateCommand): JsonResponse
    {
        Gate::authorize('lead', ProjectLookup::find($lateCommand->project_id));

        return new JsonResponse(
            $this->judge->late($lateCommand, $request->person(), $request->boolean('accept'), $request->boolean('all')),
        );
    }

    #[
        Get(
            '/entries/{entry}/stops',
            'What a failed or blocked entry would stop',
            BlockPreview::class,
            query: ['as' => '`fail`: what it would stop if it failed now'],
        ),
    ]
    #[Needs(Permission::SeeEvidence)]
    public function stops(Request $request, Entry $entry, BlockDependents $stops): JsonResponse
    {
        return new JsonResponse($stops->preview($entry, 'fail' === $request->query->getString('as')));
    }

    #[Post('/entries/{entry}/stops', 'Stop what needs the pass of this entry', BlockPreview::class, StopsRequest::class, 201)]
    #[Needs(Permission::Record)]
    public function stop(StopsRequest $request, Entry $entry, BlockDependents $stops): JsonResponse
    {
        Gate::authorize('walk', $entry);

        if ($request->boolean('if_any')) {
            $stops->applyAll(Cycle::query()->findOrFail($entry->cycle_id), [$entry->id], $request->person());

            return new JsonResponse($stops->preview($entry->refresh()), 201);
        }

        return new JsonResponse($stops->apply($entry, $request->person()), 201);
    }

    #[Delete('/entries/{entry}/stops', 'Unblock what an entry stops', BlockPreview::class, StampRequest::class)]
    #[Needs(Permission::Record)]
    public function letGo(StampRequest $request, Entry $entry, BlockDependents $stops): JsonResponse
    {
        Gate::authorize('walk', $entry);

        return new JsonResponse($stops->letGo($entry, $request->person()));
    }

    #[Get('/entries/{entry}/new-version', 'What the newest version of its case would change', NewVersionPreview::class)]
    #[Needs(Permission::SeeEvidence)]
    public function drift(Entry $entry, TakeNewVersion $take): JsonResponse
    {
        return new JsonResponse($take->preview($entry));
    }

    #[Post('/entries/{entry}/versions', 'Take the newest version of its case', EntryDetail::class, StampRequest::class)]
    #[Needs(Permission::Record)]
    public function take(StampRequest $request, Entry $entry, TakeNewVersion $take): JsonResponse
    {
        Gate::authorize('takeVersion', $entry);

        return new JsonResponse(($this->read)($take($entry, $request->person())));
    }
}
