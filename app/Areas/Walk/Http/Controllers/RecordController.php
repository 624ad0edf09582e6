<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Areas\Walk\Actions\MakeBundle;
use LucidStep\App\Areas\Walk\Actions\RemoveContent;
use LucidStep\App\Areas\Walk\Actions\VerifyRecord;
use LucidStep\App\Areas\Walk\Data\AttemptRecord;
use LucidStep\App\Areas\Walk\Http\Requests\RemoveRequest;
use LucidStep\App\Areas\Walk\Queries\ReadRecord;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Access\ProjectLookup;
use LucidStep\App\Support\Data\RecordCheck;
use LucidStep\App\Support\Http\Costly;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\Core\Access\Permission;
use Symfony\Component\HttpFoundation\BinaryFileResponse;

/**
 * Records: their events, their check, and the bundle that is checked outside.
 */
final class RecordController
{
    #[Costly]
    #[Get('/attempts/{attempt}/verification', 'Check an attempt\'s record', RecordCheck::class)]
    #[Needs(Permission::SeeEvidence)]
    public function verify(Attempt $attempt, VerifyRecord $verify): JsonResponse
    {
        return new JsonResponse(RecordCheck::from($verify($attempt)));
    }

    #[Costly]
    #[Get('/cycles/{cycle}/verification', 'Check the chain of a cycle', RecordCheck::class)]
    public function verifyCycle(Cycle $cycle, VerifyRecord $verify): JsonResponse
    {
        return new JsonResponse(RecordCheck::from($verify->cycle($cycle)));
    }

    #[Get('/attempts/{attempt}/record', 'Every event of an attempt', AttemptRecord::class)]
    #[Needs(Permission::SeeEvidence)]
    public function show(Attempt $attempt, ReadRecord $read): JsonResponse
    {
        return new JsonResponse($read($attempt));
    }

    #[Costly]
    #[Get('/attempts/{attempt}/bundle', 'The record as a ZIP that is checked outside')]
    #[Needs(Permission::SeeEvidence)]
    public function bundle(Attempt $attempt, MakeBundle $make): BinaryFileResponse
    {
        $path = $make($attempt);

        return (new BinaryFileResponse(
            $path,
            200,
            [
                'Content-Type' => 'application/zip',
                'X-Content-SHA256' => (string) hash_file('sha256', $path),
                'Cache-Control' => 'private, no-store',
            ],
            false,
        ))
            ->setContentDisposition('attachment', "{$attempt->snapshot['key']}-attempt-{$attempt->number}.zip")
            ->deleteFileAfterSend();
    }

    #[Post('/attempts/{attempt}/removals', 'Take the text of an event out; the trace stays', null, RemoveRequest::class, 204)]
    #[Needs(Permission::RemoveContent)]
    public function remove(RemoveRequest $request, Attempt $attempt, RemoveContent $remove): JsonResponse
    {
        Gate::authorize('removeContent', ProjectLookup::find($attempt->project_id));
        $remove->text($attempt, $request->integer('sequence'), $request->person(), $request->string('reason')->trim()->toString());

        return new JsonResponse(null, 204);
    }
}
