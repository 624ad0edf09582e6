<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Areas\Casebook\Actions\CaseMessages;
use LucidStep\App\Areas\Casebook\Actions\DismissSimilar;
use LucidStep\App\Areas\Casebook\Actions\RemoveMessage;
use LucidStep\App\Areas\Casebook\Data\CaseCare;
use LucidStep\App\Areas\Casebook\Data\CaseMessageLine;
use LucidStep\App\Areas\Casebook\Data\Inbox;
use LucidStep\App\Areas\Casebook\Http\Requests\AnswerRequest;
use LucidStep\App\Areas\Casebook\Http\Requests\DifferencesRequest;
use LucidStep\App\Areas\Casebook\Http\Requests\MessageRequest;
use LucidStep\App\Areas\Casebook\Queries\ReadCare;
use LucidStep\App\Areas\Casebook\Queries\ResourceMapper;
use LucidStep\App\Models\CaseMessage;
use LucidStep\App\Models\MessageState;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Access\ProjectLookup;
use LucidStep\App\Support\Http\Costly;
use LucidStep\App\Support\Http\WhyRequest;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\Core\Access\Permission;

/**
 * What waits for the authors of cases.
 */
final class CaseMessageController
{
    public function __construct(private readonly CaseMessages $messages, private readonly Memberships $memberships) {}

    #[Post('/cases/{case}/messages', 'Ask the author, or suggest a change', CaseMessageLine::class, MessageRequest::class, 201)]
    #[Needs(Permission::WorkOnDefects)]
    public function store(MessageRequest $request, TestCase $case): JsonResponse
    {
        Gate::authorize('ask', $case);

        return new JsonResponse($this->messages->ask($case, $request->person(), $request->validated()), 201);
    }

    #[
        Post(
            '/case-messages/{message}/answers',
            'Answer a question, take or decline a suggestion',
            CaseMessageLine::class,
            AnswerRequest::class,
        ),
    ]
    #[Needs(Permission::WriteCases)]
    public function answer(AnswerRequest $request, CaseMessage $message): JsonResponse
    {
        Gate::authorize('writeCases', ProjectLookup::find($message->project_id));
        $as = MessageState::from($request->string('as')->toString());

        return new JsonResponse($this->messages->answer($message, $request->person(), $as, $request->string('answer')->toString()));
    }

    #[
        Post(
            '/case-messages/{message}/removals',
            'Take the words of a question or a suggestion out, wherever they stand; the trace stays',
            CaseMessageLine::class,
            WhyRequest::class,
        ),
    ]
    #[Needs(Permission::RemoveContent)]
    public function remove(WhyRequest $request, CaseMessage $message, RemoveMessage $remove): JsonResponse
    {
        Gate::authorize('removeContent', ProjectLookup::find($message->project_id));
        $taken = $remove($message, $request->person(), $request->string('reason')->trim()->toString());

        return new JsonResponse(ResourceMapper::message($taken));
    }

    #[
        Get(
            '/projects/{project}/case-inbox',
            'Questions, suggestions and reviews that wait',
            Inbox::class,
            query: ['mine' => 'yes: only for the cases one owns'],
        ),
    ]
    #[Needs(Permission::SeeEvidence)]
    public function inbox(Request $request, Project $project): JsonResponse
    {
        return new JsonResponse(
            $this->messages->inbox($project, $this->memberships->person($request), 'yes' === $request->query->getString('mine')),
        );
    }

    #[Costly]
    #[
        Get(
            '/projects/{project}/case-care',
            'Cases not walked for long, and likely doubles in groups',
            CaseCare::class,
            query: ['days' => 'How many days are long; 90'],
        ),
    ]
    public function care(Request $request, Project $project, ReadCare $read): JsonResponse
    {
        return new JsonResponse($read($project, max(1, min(3650, $request->query->getInt('days', ReadCare::STALE_DAYS)))));
    }

    #[
        Post(
            '/projects/{project}/case-differences',
            'Say that cases differ on purpose, so that they are not pointed out as likely doubles; or take that back',
            null,
            DifferencesRequest::class,
            204,
        ),
    ]
    #[Needs(Permission::WriteCases)]
    public function differ(DifferencesRequest $request, Project $project, DismissSimilar $dismiss): Response
    {
        Gate::authorize('writeCases', $project);
        $dismiss($project, array_values((array) $request->validated('cases')), $request->boolean('differ', true));

        return new Response('', 204);
    }
}
