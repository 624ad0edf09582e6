<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Actions\Walk\AddEvidence;
use LucidStep\App\Actions\Walk\ChangeEvidence;
use LucidStep\App\Http\Docs\Delete;
use LucidStep\App\Http\Docs\Get;
use LucidStep\App\Http\Docs\Patch;
use LucidStep\App\Http\Docs\Post;
use LucidStep\App\Http\FileAnswer;
use LucidStep\App\Http\Problem;
use LucidStep\App\Http\Requests\CaptionRequest;
use LucidStep\App\Http\Requests\EvidenceRequest;
use LucidStep\App\Http\Requests\StampRequest;
use LucidStep\App\Http\Resources\ActAnswer;
use LucidStep\App\Http\Resources\EvidenceAnswer;
use LucidStep\App\Http\Resources\EvidenceItem;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Evidence;
use Symfony\Component\HttpFoundation\StreamedResponse;

/**
 * Files attached to steps and attempts.
 */
final class EvidenceController
{
    #[Post('/attempts/{attempt}/evidence', 'Attach a file', EvidenceAnswer::class, EvidenceRequest::class, 201, true)]
    public function store(EvidenceRequest $request, Attempt $attempt, AddEvidence $add): JsonResponse
    {
        Gate::authorize('record', $attempt);
        $file = $request->file('file');
        if (!$file instanceof UploadedFile) {
            throw new \LogicException('Validation lets a request without a file pass.');
        }
        [$evidence, $late] = $add($attempt, $request->person(), $file, $request->safe()->only(['id', 'name', 'caption', 'round', 'step', 'source']), $request->stamp());

        return new JsonResponse(new EvidenceAnswer(null === $late, $late?->why, null === $evidence ? null : EvidenceItem::from($evidence)), null === $late ? 201 : 202);
    }

    #[Patch('/evidence/{evidence}', 'Caption a file', ActAnswer::class, CaptionRequest::class)]
    public function update(CaptionRequest $request, Evidence $evidence, ChangeEvidence $change): JsonResponse
    {
        Gate::authorize('change', $evidence);
        $late = $change->caption($evidence, $request->person(), $request->string('caption')->toString(), $request->stamp());

        return new JsonResponse(ActAnswer::from($late), null === $late ? 200 : 202);
    }

    #[Delete('/evidence/{evidence}', 'Take a file off, until the attempt is finished', ActAnswer::class, StampRequest::class)]
    public function destroy(StampRequest $request, Evidence $evidence, ChangeEvidence $change): JsonResponse
    {
        Gate::authorize('change', $evidence);
        $late = $change->remove($evidence, $request->person(), $request->stamp());

        return new JsonResponse(ActAnswer::from($late), null === $late ? 200 : 202);
    }

    #[Get('/evidence/{evidence}/file', 'The file itself')]
    public function file(Evidence $evidence, FileAnswer $answer): StreamedResponse|JsonResponse
    {
        $evidence->load('file');

        return $answer->stream($evidence->file->path(), $evidence->file->media_type, $evidence->name, $evidence->file->isPicture());
    }

    #[Get('/evidence/{evidence}/thumbnail', 'A small picture of it; the whole one until that is made')]
    public function thumbnail(Evidence $evidence, FileAnswer $answer): StreamedResponse|JsonResponse
    {
        $evidence->load('file');

        return $evidence->file->isPicture() ? $answer->thumbnail($evidence->file, $evidence->name) : Problem::notFound()->toResponse(request());
    }
}
