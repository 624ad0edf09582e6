<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use LucidStep\App\Areas\Sessions\Actions\CommentOnSession;
use LucidStep\App\Areas\Sessions\Actions\MakeSessionBundle;
use LucidStep\App\Areas\Sessions\Data\SessionDetail;
use LucidStep\App\Areas\Sessions\Data\SessionFigures;
use LucidStep\App\Areas\Sessions\Data\SessionSheet;
use LucidStep\App\Areas\Sessions\Data\Unexplored;
use LucidStep\App\Areas\Sessions\Http\Requests\FiguresRequest;
use LucidStep\App\Areas\Sessions\Http\Requests\SessionCommentRequest;
use LucidStep\App\Areas\Sessions\Queries\ReadFigures;
use LucidStep\App\Areas\Sessions\Queries\ReadSession;
use LucidStep\App\Areas\Sessions\Queries\ReadSheet;
use LucidStep\App\Areas\Sessions\Queries\ReadUnexplored;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\SessionComment;
use LucidStep\App\Models\TestSession;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Data\RecordCheck;
use LucidStep\App\Support\Http\Costly;
use LucidStep\App\Support\Http\WhyRequest;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\App\Support\Record\SessionJournal;
use LucidStep\Core\Access\Permission;
use Symfony\Component\HttpFoundation\BinaryFileResponse;

/**
 * What is read of sessions, and said of them.
 */
final readonly class SessionReviewController
{
    public function __construct(private CommentOnSession $comment, private ReadSession $read) {}

    #[Get('/test-sessions/{testSession}/sheet', 'A session on one sheet', SessionSheet::class)]
    #[Needs(Permission::SeeEvidence)]
    public function sheet(Request $request, TestSession $testSession, ReadSheet $read, Memberships $memberships): JsonResponse
    {
        return new JsonResponse($read($testSession, $memberships->person($request)));
    }

    #[
        Post(
            '/test-sessions/{testSession}/comments',
            'Say something of it, and ask somebody to read it',
            SessionDetail::class,
            SessionCommentRequest::class,
            201,
        ),
    ]
    #[Needs(Permission::Record)]
    public function say(SessionCommentRequest $request, TestSession $testSession): JsonResponse
    {
        $to = $request->filled('to_id') ? $request->string('to_id')->toString() : null;
        $this->comment->say($testSession, $request->person(), $request->string('text')->toString(), $to);

        return new JsonResponse(($this->read)($testSession, $request->person()), 201);
    }

    #[
        Post(
            '/session-comments/{sessionComment}/removals',
            'Take out what must not be there; the trace stays',
            SessionDetail::class,
            WhyRequest::class,
        ),
    ]
    #[Needs(Permission::RemoveContent)]
    public function remove(WhyRequest $request, SessionComment $sessionComment): JsonResponse
    {
        $this->comment->remove($sessionComment, $request->person(), $request->string('reason')->trim()->toString());

        return new JsonResponse(($this->read)($sessionComment->session, $request->person()));
    }

    #[Costly]
    #[Get('/test-sessions/{testSession}/verification', 'Check the record of a session', RecordCheck::class)]
    #[Needs(Permission::SeeEvidence)]
    public function verify(TestSession $testSession, SessionJournal $journal): JsonResponse
    {
        return new JsonResponse(RecordCheck::from($journal->verify($testSession)));
    }

    #[Costly]
    #[Get('/test-sessions/{testSession}/bundle', 'The record as a ZIP that is checked outside')]
    #[Needs(Permission::SeeEvidence)]
    public function bundle(
        Request $request,
        TestSession $testSession,
        MakeSessionBundle $make,
        Memberships $memberships,
    ): BinaryFileResponse {
        $path = $make($testSession, $memberships->person($request));

        return (new BinaryFileResponse($path, 200, ['Content-Type' => 'application/zip', 'Cache-Control' => 'private, no-store'], false))
            ->setContentDisposition('attachment', "{$testSession->charter->key}-session-{$testSession->number}.zip")
            ->deleteFileAfterSend();
    }

    #[
        Get(
            '/projects/{project}/session-figures',
            'What sessions come to',
            SessionFigures::class,
            query: [
                'by' => '`folder`, `label`, `requirement`, `build`, `person` or `month`',
                'from' => 'A day: only sessions that began from then on',
                'until' => 'The last day',
            ],
        ),
    ]
    #[Needs(Permission::SeeEvidence)]
    public function figures(FiguresRequest $request, Project $project, ReadFigures $read): JsonResponse
    {
        return new JsonResponse($read($project, $request->by(), $request->day('from', $project), $request->day('until', $project, 1)));
    }

    #[
        Get(
            '/projects/{project}/unexplored',
            'What nobody explored on the newest build, that never explored first',
            Unexplored::class,
            list: true,
        ),
    ]
    #[Needs(Permission::SeeEvidence)]
    public function unexplored(Project $project, ReadUnexplored $read): JsonResponse
    {
        return new JsonResponse($read($project));
    }
}
