<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Actions\Cycles\JudgeQueue;
use LucidStep\App\Actions\Cycles\ReadBoard;
use LucidStep\App\Actions\Cycles\ReadQueue;
use LucidStep\App\Actions\Cycles\Stops;
use LucidStep\App\Actions\Cycles\TakeVersion;
use LucidStep\App\Http\Docs\Delete;
use LucidStep\App\Http\Docs\Get;
use LucidStep\App\Http\Docs\Post;
use LucidStep\App\Http\Requests\JudgeRequest;
use LucidStep\App\Http\Requests\LookRequest;
use LucidStep\App\Http\Requests\StampRequest;
use LucidStep\App\Http\Resources\DriftPreview;
use LucidStep\App\Http\Resources\EntryDetail;
use LucidStep\App\Http\Resources\LeadQueue;
use LucidStep\App\Http\Resources\StopPreview;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\LateAct;
use LucidStep\App\Models\Project;

/**
 * What waits for a lead, and what is decided about an entry on the way.
 */
final readonly class QueueController
{
    public function __construct(private JudgeQueue $judge, private ReadBoard $board)
    {
    }

    #[Get('/projects/{project}/queue', 'What waits for a lead', LeadQueue::class)]
    public function index(Project $project, ReadQueue $read): JsonResponse
    {
        Gate::authorize('lead', $project);

        return new JsonResponse($read($project));
    }

    #[Post('/entries/{entry}/looks', 'Hand an entry to a lead for a look', EntryDetail::class, LookRequest::class, 201)]
    public function ask(LookRequest $request, Entry $entry): JsonResponse
    {
        Gate::authorize('walk', $entry);

        return new JsonResponse($this->board->entry($this->judge->ask($entry, $request->person(), $request->string('note')->toString())), 201);
    }

    #[Post('/entries/{entry}/looked', 'A lead has looked at an entry', EntryDetail::class, StampRequest::class)]
    public function looked(StampRequest $request, Entry $entry): JsonResponse
    {
        Gate::authorize('askRetest', $entry);

        return new JsonResponse($this->board->entry($this->judge->looked($entry)));
    }

    #[Post('/attempts/{attempt}/time-seen', 'A lead has seen a corrected time', null, StampRequest::class, 204)]
    public function timeSeen(StampRequest $request, Attempt $attempt): JsonResponse
    {
        Gate::authorize('lead', Project::query()->findOrFail($attempt->project_id));
        $this->judge->timeSeen($attempt);

        return new JsonResponse(null, 204);
    }

    #[Post('/late-acts/{lateAct}/judgements', 'Accept a late act into the record, or set it aside', null, JudgeRequest::class, 204)]
    public function late(JudgeRequest $request, LateAct $lateAct): JsonResponse
    {
        Gate::authorize('lead', Project::query()->findOrFail($lateAct->project_id));
        $this->judge->late($lateAct, $request->person(), $request->boolean('accept'), $request->boolean('all'));

        return new JsonResponse(null, 204);
    }

    #[Get('/entries/{entry}/stops', 'What a failed or blocked entry would stop', StopPreview::class, query: ['as' => '`fail`: what it would stop if it failed now'])]
    public function stops(Request $request, Entry $entry, Stops $stops): JsonResponse
    {
        return new JsonResponse($stops->preview($entry, 'fail' === $request->query->getString('as')));
    }

    #[Post('/entries/{entry}/stops', 'Stop what needs the pass of this entry', StopPreview::class, StampRequest::class, 201)]
    public function stop(StampRequest $request, Entry $entry, Stops $stops): JsonResponse
    {
        Gate::authorize('walk', $entry);

        return new JsonResponse($stops->apply($entry, $request->person()), 201);
    }

    #[Delete('/entries/{entry}/stops', 'Let go what an entry stops', StopPreview::class, StampRequest::class)]
    public function letGo(StampRequest $request, Entry $entry, Stops $stops): JsonResponse
    {
        Gate::authorize('walk', $entry);

        return new JsonResponse($stops->letGo($entry, $request->person()));
    }

    #[Get('/entries/{entry}/drift', 'What the newest version of its case would change', DriftPreview::class)]
    public function drift(Entry $entry, TakeVersion $take): JsonResponse
    {
        return new JsonResponse($take->preview($entry));
    }

    #[Post('/entries/{entry}/versions', 'Take the newest version of its case', EntryDetail::class, StampRequest::class)]
    public function take(StampRequest $request, Entry $entry, TakeVersion $take): JsonResponse
    {
        Gate::authorize('takeVersion', $entry);

        return new JsonResponse($this->board->entry($take($entry, $request->person())));
    }
}
