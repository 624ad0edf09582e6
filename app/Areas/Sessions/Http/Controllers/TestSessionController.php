<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use LucidStep\App\Areas\Sessions\Actions\DebriefSession;
use LucidStep\App\Areas\Sessions\Actions\RunSession;
use LucidStep\App\Areas\Sessions\Data\SessionDetail;
use LucidStep\App\Areas\Sessions\Http\Requests\BoxRequest;
use LucidStep\App\Areas\Sessions\Http\Requests\DebriefRequest;
use LucidStep\App\Areas\Sessions\Http\Requests\MoveSessionRequest;
use LucidStep\App\Areas\Sessions\Http\Requests\SignOffRequest;
use LucidStep\App\Areas\Sessions\Http\Requests\SwitchRequest;
use LucidStep\App\Areas\Sessions\Http\Requests\TimeMoveRequest;
use LucidStep\App\Areas\Sessions\Queries\ReadSession;
use LucidStep\App\Models\TestSession;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Http\ApiRequest;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\App\Support\OpenApi\Put;
use LucidStep\Core\Access\Permission;
use LucidStep\Core\Sessions\SessionState;

/**
 * A session as it runs, and what is said after it.
 */
final readonly class TestSessionController
{
    public function __construct(private RunSession $run, private DebriefSession $debrief, private ReadSession $read) {}

    #[Get('/test-sessions/{testSession}', 'A session with everything about it but its timeline', SessionDetail::class)]
    #[Needs(Permission::SeeEvidence)]
    public function show(Request $request, TestSession $testSession, Memberships $memberships): JsonResponse
    {
        return new JsonResponse(($this->read)($testSession, $memberships->person($request)));
    }

    #[Post('/test-sessions/{testSession}/moves', 'Pause, go on or stop', SessionDetail::class, MoveSessionRequest::class)]
    #[Needs(Permission::Record)]
    public function move(MoveSessionRequest $request, TestSession $testSession): JsonResponse
    {
        $to = SessionState::from($request->string('to')->toString());

        return $this->answer($request, $this->run->move($testSession, $request->person(), $to, $request->stamp()));
    }

    #[Put('/test-sessions/{testSession}/box', 'Set the time box', SessionDetail::class, BoxRequest::class)]
    #[Needs(Permission::Record)]
    public function extend(BoxRequest $request, TestSession $testSession): JsonResponse
    {
        return $this->answer(
            $request,
            $this->run->extend($testSession, $request->person(), $request->integer('minutes'), $request->stamp()),
        );
    }

    #[Post('/test-sessions/{testSession}/switches', 'Say what the time goes to from now on', SessionDetail::class, SwitchRequest::class)]
    #[Needs(Permission::Record)]
    public function switch(SwitchRequest $request, TestSession $testSession): JsonResponse
    {
        $to = TestSession::share($request->string('to')->toString());

        return $this->answer($request, $this->run->switch($testSession, $request->person(), $to, $request->stamp()));
    }

    #[
        Post(
            '/test-sessions/{testSession}/time-moves',
            'Move time from one share to another, once it is stopped',
            SessionDetail::class,
            TimeMoveRequest::class,
        ),
    ]
    #[Needs(Permission::Record)]
    public function moveTime(TimeMoveRequest $request, TestSession $testSession): JsonResponse
    {
        [$from, $to] = array_map(static fn(string $field) => TestSession::share($request->string($field)->toString()), ['from', 'to']);

        return $this->answer(
            $request,
            $this->run->moveTime($testSession, $request->person(), $from, $to, $request->integer('ms'), $request->stamp()),
        );
    }

    #[Put('/test-sessions/{testSession}/debrief', 'Say what was covered', SessionDetail::class, DebriefRequest::class)]
    #[Needs(Permission::Record)]
    public function write(DebriefRequest $request, TestSession $testSession): JsonResponse
    {
        [$covered, $remarks] = [$request->string('covered')->trim()->toString(), $request->string('remarks')->trim()->toString()];

        return $this->answer($request, $this->debrief->write($testSession, $request->person(), $covered, $remarks, $request->stamp()));
    }

    #[
        Post(
            '/test-sessions/{testSession}/sign-offs',
            'Say that it was read: its record is sealed',
            SessionDetail::class,
            SignOffRequest::class,
        ),
    ]
    #[Needs(Permission::Lead)]
    public function signOff(SignOffRequest $request, TestSession $testSession): JsonResponse
    {
        $note = $request->string('note')->trim()->toString();

        return $this->answer($request, $this->debrief->signOff($testSession, $request->person(), $note));
    }

    private function answer(ApiRequest $request, TestSession $session): JsonResponse
    {
        return new JsonResponse(($this->read)($session, $request->person()));
    }
}
