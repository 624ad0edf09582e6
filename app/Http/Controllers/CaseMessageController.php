<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Actions\Casebook\Messages;
use LucidStep\App\Http\Docs\Delete;
use LucidStep\App\Http\Docs\Get;
use LucidStep\App\Http\Docs\Post;
use LucidStep\App\Http\Requests\AnswerRequest;
use LucidStep\App\Http\Requests\MessageRequest;
use LucidStep\App\Http\Requests\StampRequest;
use LucidStep\App\Http\Resources\CaseCare;
use LucidStep\App\Http\Resources\CaseMessageLine;
use LucidStep\App\Http\Resources\Inbox;
use LucidStep\App\Models\CaseMessage;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Policies\Memberships;

/**
 * What waits for the authors of cases.
 */
final class CaseMessageController
{
    public function __construct(private readonly Messages $messages, private readonly Memberships $memberships)
    {
    }

    #[Post('/cases/{case}/messages', 'Ask the author, or suggest a change', CaseMessageLine::class, MessageRequest::class, 201)]
    public function store(MessageRequest $request, TestCase $case): JsonResponse
    {
        Gate::authorize('ask', $case);

        return new JsonResponse($this->messages->ask($case, $request->person(), $request->validated()), 201);
    }

    #[Post('/case-messages/{message}/answers', 'Answer a question, take or decline a suggestion', CaseMessageLine::class, AnswerRequest::class)]
    public function answer(AnswerRequest $request, CaseMessage $message): JsonResponse
    {
        Gate::authorize('writeCases', Project::query()->findOrFail($message->project_id));
        /** @var 'answered'|'taken'|'declined' $as */
        $as = $request->string('as')->toString();

        return new JsonResponse($this->messages->answer($message, $request->person(), $as, $request->string('answer')->toString()));
    }

    #[Get('/projects/{project}/case-inbox', 'Questions, suggestions and reviews that wait', Inbox::class, query: ['mine' => 'yes: only for the cases one owns'])]
    public function inbox(Request $request, Project $project): JsonResponse
    {
        return new JsonResponse($this->messages->inbox($project, $this->memberships->person($request), 'yes' === $request->query->getString('mine')));
    }

    #[Get('/projects/{project}/case-care', 'Cases not walked for long, and likely doubles', CaseCare::class, query: ['days' => 'How many days are long; 90'])]
    public function care(Request $request, Project $project): JsonResponse
    {
        return new JsonResponse($this->messages->care($project, max(1, min(3650, $request->query->getInt('days', Messages::STALE_DAYS)))));
    }

    #[Delete('/cases/{case}/doubles/{other}', 'These two are no doubles; do not point them out again', null, StampRequest::class, 204)]
    public function setAside(StampRequest $request, TestCase $case, TestCase $other): Response
    {
        Gate::authorize('write', $case);
        $pair = [$case->id, $other->id];
        sort($pair);
        DB::table('case_doubles')->where('case_id', $pair[0])->where('other_id', $pair[1])->update(['set_aside' => true]);

        return new Response('', 204);
    }
}
