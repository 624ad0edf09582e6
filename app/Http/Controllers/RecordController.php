<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Actions\Walk\CycleChain;
use LucidStep\App\Actions\Walk\MakeBundle;
use LucidStep\App\Actions\Walk\RemoveContent;
use LucidStep\App\Actions\Walk\VerifyRecord;
use LucidStep\App\Http\Docs\Get;
use LucidStep\App\Http\Docs\Post;
use LucidStep\App\Http\Requests\RemoveRequest;
use LucidStep\App\Http\Resources\AttemptRecord;
use LucidStep\App\Http\Resources\Person;
use LucidStep\App\Http\Resources\RecordCheck;
use LucidStep\App\Http\Resources\RecordEvent;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Project;
use Symfony\Component\HttpFoundation\BinaryFileResponse;

/**
 * Records: their events, their check, and the bundle that is checked outside.
 */
final class RecordController
{
    #[Get('/attempts/{attempt}/verification', 'Check an attempt\'s record', RecordCheck::class)]
    public function verify(Attempt $attempt, VerifyRecord $verify): JsonResponse
    {
        return new JsonResponse(RecordCheck::from($verify($attempt)));
    }

    #[Get('/cycles/{cycle}/verification', 'Check the chain of a cycle', RecordCheck::class)]
    public function verifyCycle(Cycle $cycle, CycleChain $chain): JsonResponse
    {
        return new JsonResponse(RecordCheck::from($chain->verify($cycle)));
    }

    #[Get('/attempts/{attempt}/record', 'Every event of an attempt', AttemptRecord::class)]
    public function show(Attempt $attempt): JsonResponse
    {
        $attempt->load('entry.cycle');
        $time = static fn (?int $us): ?string => null === $us ? null : \sprintf('%s.%03dZ', gmdate('Y-m-d\TH:i:s', intdiv($us, 1_000_000)), intdiv($us % 1_000_000, 1000));
        $events = DB::table('events')->leftJoin('users', 'users.id', '=', 'actor_id')->where('attempt_id', $attempt->id)->orderBy('sequence')->get(['sequence', 'kind', 'actor_id', 'users.name', 'device_time', 'server_time', 'payload', 'evidence', 'hash', 'bytes'])
            ->map(static fn (object $e): RecordEvent => new RecordEvent($e->sequence, $e->kind, new Person($e->actor_id, $e->name), $time($e->device_time), (string) $time($e->server_time), json_decode($e->payload, false, 512, \JSON_THROW_ON_ERROR), json_decode($e->evidence, true, 16, \JSON_THROW_ON_ERROR), $e->hash, '' === $e->bytes));

        return new JsonResponse(new AttemptRecord($attempt->id, array_values($events->all()), $attempt->head, null !== $attempt->sealed_head, $attempt->entry->cycle->log_head, $attempt->entry->cycle->log_sequence));
    }

    #[Get('/attempts/{attempt}/bundle', 'The record as a ZIP that is checked outside')]
    public function bundle(Attempt $attempt, MakeBundle $make): BinaryFileResponse
    {
        $path = $make($attempt);

        return (new BinaryFileResponse($path, 200, ['Content-Type' => 'application/zip', 'X-Content-SHA256' => (string) hash_file('sha256', $path), 'Cache-Control' => 'private, no-store'], false))
            ->setContentDisposition('attachment', "{$attempt->snapshot['key']}-attempt-{$attempt->number}.zip")->deleteFileAfterSend();
    }

    #[Post('/attempts/{attempt}/removals', 'Take the text of an event out; the trace stays', null, RemoveRequest::class, 204)]
    public function remove(RemoveRequest $request, Attempt $attempt, RemoveContent $remove): JsonResponse
    {
        Gate::authorize('removeContent', Project::query()->findOrFail($attempt->project_id));
        $remove->text($attempt, $request->integer('sequence'), $request->person(), $request->string('reason')->trim()->toString());

        return new JsonResponse(null, 204);
    }
}
