<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\UploadedFile;
use LucidStep\App\Areas\Sessions\Actions\WriteLine;
use LucidStep\App\Areas\Sessions\Data\TimelineLine;
use LucidStep\App\Areas\Sessions\Data\TimelinePage;
use LucidStep\App\Areas\Sessions\Http\Requests\LineRequest;
use LucidStep\App\Areas\Sessions\Http\Requests\MendLineRequest;
use LucidStep\App\Areas\Sessions\Http\Requests\SessionCaptureRequest;
use LucidStep\App\Areas\Sessions\Queries\ReadTimeline;
use LucidStep\App\Models\SessionLine;
use LucidStep\App\Models\TestSession;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Http\FileResponse;
use LucidStep\App\Support\Http\WhyRequest;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Patch;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\App\Support\Problems\Problem;
use LucidStep\Core\Access\Permission;
use LucidStep\Core\Sessions\LineKind;
use Symfony\Component\HttpFoundation\StreamedResponse;

/**
 * The timeline of a session.
 */
final readonly class TimelineController
{
    public function __construct(private WriteLine $write, private ReadTimeline $read) {}

    #[
        Get(
            '/test-sessions/{testSession}/lines',
            'Its timeline, by windows of a thousand lines',
            TimelinePage::class,
            query: [
                'q' => 'Words that the lines have',
                'kind' => 'Kinds, between commas',
                'after' => 'Where the page before ended',
                'since' => 'Only lines with a higher number, which arrived later',
            ],
        ),
    ]
    #[Needs(Permission::SeeEvidence)]
    public function index(Request $request, TestSession $testSession): JsonResponse
    {
        $text = static fn(string $name): string => $request->query->getString($name);
        $kinds = array_filter(array_map(LineKind::tryFrom(...), explode(',', $text('kind'))));

        return new JsonResponse(
            ($this->read)(
                $testSession->id,
                $text('q'),
                array_values($kinds),
                $text('after'),
                max(0, min(2_147_483_647, (int) $text('since'))),
            ),
        );
    }

    #[Post('/test-sessions/{testSession}/lines', 'Write into the timeline', TimelineLine::class, LineRequest::class, 201)]
    #[Needs(Permission::Record)]
    public function store(LineRequest $request, TestSession $testSession): JsonResponse
    {
        $line = $this->write->write(
            $testSession,
            $request->person(),
            $request->string('id')->toString(),
            LineKind::from($request->string('kind')->toString()),
            $request->string('words')->toString(),
            $request->boolean('pinned'),
            $request->stamp(),
        );

        return new JsonResponse($this->read->one($line), 201);
    }

    #[Post('/test-sessions/{testSession}/captures', 'Keep a capture', TimelineLine::class, SessionCaptureRequest::class, 201, true)]
    #[Needs(Permission::Record)]
    public function capture(SessionCaptureRequest $request, TestSession $testSession): JsonResponse
    {
        $upload = $request->file('file');
        $line = $this->write->capture(
            $testSession,
            $request->person(),
            $request->string('id')->toString(),
            $upload instanceof UploadedFile ? $upload : throw new \LogicException('Validation lets a request without a file pass.'),
            $request->string('name')->trim()->toString(),
            $request->string('words')->toString(),
            $request->stamp(),
        );

        return new JsonResponse($this->read->one($line), 201);
    }

    #[Patch('/session-lines/{sessionLine}', 'Mend what was written, or pin it', TimelineLine::class, MendLineRequest::class)]
    #[Needs(Permission::Record)]
    public function mend(MendLineRequest $request, SessionLine $sessionLine): JsonResponse
    {
        $line = $this->write->mend(
            $sessionLine,
            $request->person(),
            $request->has('words') ? $request->string('words')->toString() : null,
            $request->has('pinned') ? $request->boolean('pinned') : null,
            $request->stamp(),
        );

        return new JsonResponse($this->read->one($line));
    }

    #[
        Post(
            '/session-lines/{sessionLine}/removals',
            'Take words and file out that must not be there; the trace stays',
            TimelineLine::class,
            WhyRequest::class,
        ),
    ]
    #[Needs(Permission::RemoveContent)]
    public function remove(WhyRequest $request, SessionLine $sessionLine): JsonResponse
    {
        $line = $this->write->remove($sessionLine, $request->person(), $request->string('reason')->trim()->toString());

        return new JsonResponse($this->read->one($line));
    }

    #[Get('/session-lines/{sessionLine}/file', 'The file of a capture')]
    #[Needs(Permission::SeeEvidence)]
    public function file(SessionLine $sessionLine, FileResponse $answer): StreamedResponse|JsonResponse
    {
        $file = $sessionLine->file;

        return null === $file
            ? Problem::notFound()->toResponse(request())
            : $answer->stream($file->path(), $file->media_type, $sessionLine->name, $file->isPicture());
    }

    #[Get('/session-lines/{sessionLine}/thumbnail', 'A small picture of it; the whole one until that is made')]
    #[Needs(Permission::SeeEvidence)]
    public function thumbnail(SessionLine $sessionLine, FileResponse $answer): StreamedResponse|JsonResponse
    {
        return true === $sessionLine->file?->isPicture()
            ? $answer->thumbnail($sessionLine->file, $sessionLine->name)
            : Problem::notFound()->toResponse(request());
    }
}
