<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Areas\Evidence\Data\EvidenceItem;
use LucidStep\App\Areas\Evidence\Data\PictureComparison;
use LucidStep\App\Areas\Evidence\Exceptions\EvidenceConflict;
use LucidStep\App\Areas\Evidence\Queries\ComparePictures;
use LucidStep\App\Areas\Walk\Actions\RemoveContent;
use LucidStep\App\Areas\Walk\Actions\UploadEvidence;
use LucidStep\App\Areas\Walk\Commands\RemoveEvidenceCommand;
use LucidStep\App\Areas\Walk\Http\Requests\CaptionRequest;
use LucidStep\App\Areas\Walk\Http\Requests\CompareRequest;
use LucidStep\App\Areas\Walk\Http\Requests\EvidenceRequest;
use LucidStep\App\Areas\Walk\Http\Requests\MarkupRequest;
use LucidStep\App\Areas\Walk\Http\Requests\MoveEvidenceRequest;
use LucidStep\App\Areas\Walk\Http\Requests\RedactRequest;
use LucidStep\App\Areas\Walk\Http\Requests\RemoveRequest;
use LucidStep\App\Areas\Walk\Http\Resources\CommandResult;
use LucidStep\App\Areas\Walk\Http\Resources\EvidenceResult;
use LucidStep\App\Areas\Walk\Queries\ReadRemovals;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Evidence;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Access\ProjectLookup;
use LucidStep\App\Support\Http\Costly;
use LucidStep\App\Support\Http\FileResponse;
use LucidStep\App\Support\Http\StampRequest;
use LucidStep\App\Support\OpenApi\Delete;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Patch;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\App\Support\Problems\Problem;
use LucidStep\Core\Access\Permission;
use Symfony\Component\HttpFoundation\StreamedResponse;

/**
 * Files attached to steps and attempts.
 */
final readonly class EvidenceController
{
    public function __construct(private ReadRemovals $removals) {}

    #[Post('/attempts/{attempt}/evidence', 'Attach a file', EvidenceResult::class, EvidenceRequest::class, 201, true)]
    #[Needs(Permission::Record, or: 'record')]
    public function store(EvidenceRequest $request, Attempt $attempt, UploadEvidence $upload): JsonResponse
    {
        Gate::authorize('record', $attempt);
        $file = $request->file('file');
        $file = $file instanceof UploadedFile ? $file : null;
        [$evidence, $late] = $upload->add($attempt, $request->person(), $file, $request->command(), $request->stamp());

        return new JsonResponse(
            new EvidenceResult(null === $late, $late?->why, null === $evidence ? null : EvidenceItem::from($evidence)),
            null === $late ? 201 : 202,
        );
    }

    #[Patch('/evidence/{evidence}', 'Caption a file', CommandResult::class, CaptionRequest::class)]
    #[Needs(Permission::Record)]
    public function update(CaptionRequest $request, Evidence $evidence, UploadEvidence $change): JsonResponse
    {
        Gate::authorize('change', $evidence);

        return CommandResult::respond($change->change($evidence, $request->person(), $request->command($evidence), $request->stamp()));
    }

    #[Delete('/evidence/{evidence}', 'Take a file off, until the attempt is finished', CommandResult::class, StampRequest::class)]
    #[Needs(Permission::Record)]
    public function destroy(StampRequest $request, Evidence $evidence, UploadEvidence $change): JsonResponse
    {
        Gate::authorize('change', $evidence);

        return CommandResult::respond(
            $change->change($evidence, $request->person(), new RemoveEvidenceCommand($evidence->id), $request->stamp()),
        );
    }

    #[Get('/evidence/{evidence}/file', 'The file itself')]
    #[Needs(Permission::SeeEvidence)]
    public function file(Evidence $evidence, FileResponse $answer): StreamedResponse|JsonResponse
    {
        if (null === $evidence->file || $this->removals->isGone($evidence)) {
            return Problem::notFound()->toResponse(request());
        }

        return $answer->stream($evidence->file->path(), $evidence->file->media_type, $evidence->name, $evidence->file->isPicture());
    }

    #[Get('/evidence/{evidence}/thumbnail', 'A small picture of it; the whole one until that is made')]
    #[Needs(Permission::SeeEvidence)]
    public function thumbnail(Evidence $evidence, FileResponse $answer): StreamedResponse|JsonResponse
    {
        return true === $evidence->file?->isPicture() && !$this->removals->isGone($evidence)
            ? $answer->thumbnail($evidence->file, $evidence->name)
            : Problem::notFound()->toResponse(request());
    }

    #[Get('/evidence/{evidence}/marked', 'The picture with what was drawn on it')]
    #[Needs(Permission::SeeEvidence)]
    public function marked(Evidence $evidence, FileResponse $answer): StreamedResponse|JsonResponse
    {
        return null === $evidence->marked
            ? Problem::notFound()->toResponse(request())
            : $answer->stream($evidence->marked->path(), $evidence->marked->media_type, $evidence->name, true);
    }

    #[
        Post(
            '/evidence/{evidence}/markups',
            'Draw on a picture; what is drawn stays apart',
            CommandResult::class,
            MarkupRequest::class,
            200,
            true,
        ),
    ]
    #[Needs(Permission::Record)]
    public function markUp(MarkupRequest $request, Evidence $evidence, UploadEvidence $change): JsonResponse
    {
        Gate::authorize('change', $evidence);
        $file = $request->file('file');

        return CommandResult::respond(
            $change->markUp(
                $evidence,
                $request->person(),
                $request->shapes(),
                $file instanceof UploadedFile ? $file : null,
                $request->stamp(),
            ),
        );
    }

    #[
        Post(
            '/evidence/{evidence}/redactions',
            'Put a picture in the place of one that showed too much',
            CommandResult::class,
            RedactRequest::class,
            200,
            true,
        ),
    ]
    #[Needs(Permission::Record)]
    public function redact(RedactRequest $request, Evidence $evidence, UploadEvidence $change): JsonResponse
    {
        Gate::authorize('change', $evidence);
        $file = $request->file('file');

        return CommandResult::respond(
            $change->redact(
                $evidence,
                $request->person(),
                $file instanceof UploadedFile ? $file : throw new \LogicException('Validation lets a request without a file pass.'),
                $request->stamp(),
            ),
        );
    }

    #[
        Post(
            '/evidence/{evidence}/moves',
            'Move a file to another step, or to the attempt',
            CommandResult::class,
            MoveEvidenceRequest::class,
        ),
    ]
    #[Needs(Permission::Record)]
    public function move(MoveEvidenceRequest $request, Evidence $evidence, UploadEvidence $change): JsonResponse
    {
        Gate::authorize('change', $evidence);

        return CommandResult::respond($change->change($evidence, $request->person(), $request->command($evidence), $request->stamp()));
    }

    #[Costly]
    #[
        Get(
            '/evidence/{evidence}/comparison',
            'How far a picture differs from its reference',
            PictureComparison::class,
            query: ['reference' => 'The SHA-256 of the reference picture'],
        ),
    ]
    #[Needs(Permission::SeeEvidence)]
    public function comparison(Request $request, Evidence $evidence, ComparePictures $compare): JsonResponse
    {
        return new JsonResponse($compare($evidence, $request->query->getString('reference')));
    }

    #[Costly]
    #[Post('/evidence/{evidence}/comparisons', 'Write a comparison into the record', CommandResult::class, CompareRequest::class)]
    #[Needs(Permission::Record)]
    public function compare(CompareRequest $request, Evidence $evidence, UploadEvidence $change): JsonResponse
    {
        Gate::authorize('change', $evidence);

        return CommandResult::respond($change->change($evidence, $request->person(), $request->command($evidence), $request->stamp()));
    }

    #[Costly]
    #[Get('/evidence/{evidence}/difference', 'A picture of what differs', query: ['reference' => 'The SHA-256 of the reference picture'])]
    #[Needs(Permission::SeeEvidence)]
    public function difference(Request $request, Evidence $evidence, ComparePictures $compare): Response
    {
        return new Response($compare->picture($evidence, $request->query->getString('reference')), 200, [
            'Content-Type' => 'image/png',
            'X-Content-Type-Options' => 'nosniff',
            'Cache-Control' => 'private, no-store',
        ]);
    }

    #[Post('/evidence/{evidence}/removals', 'Take the content of a file out; the trace stays', null, RemoveRequest::class, 204)]
    #[Needs(Permission::RemoveContent)]
    public function remove(RemoveRequest $request, Evidence $evidence, RemoveContent $remove): JsonResponse
    {
        Gate::authorize('removeContent', ProjectLookup::find($evidence->project_id));
        $remove->file(
            $evidence->attempt_id,
            $evidence->project_id,
            $evidence->sha256 ?? throw EvidenceConflict::linkHasNoContent(),
            $request->person(),
            $request->string('reason')->trim()->toString(),
        );

        return new JsonResponse(null, 204);
    }
}
