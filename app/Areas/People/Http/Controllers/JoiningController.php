<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Http\Controllers;

use Illuminate\Database\Eloquent\ModelNotFoundException;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Response;
use LucidStep\App\Areas\People\Actions\AcceptInvitation;
use LucidStep\App\Areas\People\Actions\OneTimeLinks;
use LucidStep\App\Areas\People\Actions\SignIn;
use LucidStep\App\Areas\People\Actions\UseOneTimeLink;
use LucidStep\App\Areas\People\Data\InvitationPage;
use LucidStep\App\Areas\People\Data\OneTimeLinkPage;
use LucidStep\App\Areas\People\Data\SessionState;
use LucidStep\App\Areas\People\Http\Requests\AcceptRequest;
use LucidStep\App\Areas\People\Http\Requests\EmailRequest;
use LucidStep\App\Areas\People\Http\Requests\LinkUseRequest;
use LucidStep\App\Areas\People\Http\Requests\SignInRequest;
use LucidStep\App\Areas\People\Http\Requests\TokenRequest;
use LucidStep\App\Areas\People\Jobs\SendPasswordLink;
use LucidStep\App\Areas\People\Queries\ReadInvitation;
use LucidStep\App\Areas\People\Queries\ReadProjects;
use LucidStep\App\Support\OpenApi\Post;

/**
 * The ways in for whoever has no session yet: an invitation, another password, the first owner. What proves it comes in the body and
 * never in an address, so that no log has it.
 */
final readonly class JoiningController
{
    public function __construct(private SignIn $signIn, private ReadProjects $projects) {}

    #[Post('/invitation-lookups', 'What an invitation is for', InvitationPage::class, TokenRequest::class)]
    public function invitation(TokenRequest $request, ReadInvitation $read): JsonResponse
    {
        return new JsonResponse($read((string) $request->validated('token'), SignIn::who()));
    }

    #[Post('/invitation-acceptances', 'Join a project', SessionState::class, AcceptRequest::class)]
    public function accept(AcceptRequest $request, AcceptInvitation $accept): JsonResponse
    {
        $before = SignIn::who();
        $user = $accept(
            (string) $request->validated('token'),
            $before,
            (string) $request->validated('name'),
            (string) $request->validated('password'),
        );
        if (null === $before) {
            ($this->signIn)($request, $user);
        }

        return new JsonResponse($this->projects->session($user));
    }

    #[Post('/link-lookups', 'What an address that works once is for', OneTimeLinkPage::class, TokenRequest::class)]
    public function link(TokenRequest $request): JsonResponse
    {
        $link = OneTimeLinks::find((string) $request->validated('token')) ?? throw new ModelNotFoundException();

        return new JsonResponse(new OneTimeLinkPage($link->purpose->value, $link->user?->email, $link->user?->name));
    }

    #[Post('/link-uses', 'Set a password by an address that works once, and sign in', SessionState::class, LinkUseRequest::class)]
    public function useLink(LinkUseRequest $request, UseOneTimeLink $use): JsonResponse
    {
        $user = $use(
            (string) $request->validated('token'),
            (string) $request->validated('email'),
            (string) $request->validated('name'),
            (string) $request->validated('password'),
            (string) $request->validated('code'),
        );
        if (null !== SignIn::who()) {
            $this->signIn->out($request);
        }
        ($this->signIn)($request, $user);

        return new JsonResponse($this->projects->session($user));
    }

    #[Post('/password-resets', 'Have an address sent at which to set another password', body: EmailRequest::class, status: 204)]
    public function reset(EmailRequest $request): Response
    {
        SendPasswordLink::dispatch(SignInRequest::address($request->validated('email')));

        return new Response('', 204);
    }
}
