<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Actions\Walk\CorrectTime;
use LucidStep\App\Actions\Walk\FinishAttempt;
use LucidStep\App\Actions\Walk\RecordVerdict;
use LucidStep\App\Actions\Walk\StartAttempt;
use LucidStep\App\Actions\Walk\TakeOver;
use LucidStep\App\Actions\Walk\VerifyRecord;
use LucidStep\App\Actions\Walk\WriteNote;
use LucidStep\App\Http\Docs\Get;
use LucidStep\App\Http\Docs\Post;
use LucidStep\App\Http\Requests\FinishRequest;
use LucidStep\App\Http\Requests\NoteRequest;
use LucidStep\App\Http\Requests\StampRequest;
use LucidStep\App\Http\Requests\StartAttemptRequest;
use LucidStep\App\Http\Requests\TimeRequest;
use LucidStep\App\Http\Requests\VerdictRequest;
use LucidStep\App\Http\Resources\ActAnswer;
use LucidStep\App\Http\Resources\AttemptDetail;
use LucidStep\App\Http\Resources\RecordCheck;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\LateAct;
use LucidStep\App\Policies\Memberships;
use LucidStep\Core\Forecast\Duration;

/**
 * The walk: attempts and what is recorded in them. An act that arrives too late is kept and answered with 202.
 */
final class AttemptController
{
    #[Post('/entries/{entry}/attempts', 'Start an attempt, or go on with the open one', AttemptDetail::class, StartAttemptRequest::class, 201)]
    public function store(StartAttemptRequest $request, Entry $entry, StartAttempt $start, Memberships $memberships): JsonResponse
    {
        Gate::authorize('walk', $entry);
        $role = $memberships->role($request->person(), $entry->project_id) ?? throw new \LogicException('The address lets strangers in.');
        $word = $request->input('word');
        $attempt = $start($entry, $request->person(), $role, $request->stamp(), $request->boolean('again'), \is_string($word) ? $word : null);

        return new JsonResponse(AttemptDetail::from($attempt, $request->person()->id), 201);
    }

    #[Get('/attempts/{attempt}', 'An attempt step by step', AttemptDetail::class)]
    public function show(Request $request, Attempt $attempt, Memberships $memberships): JsonResponse
    {
        return new JsonResponse(AttemptDetail::from($attempt, $memberships->person($request)->id));
    }

    #[Get('/attempts/{attempt}/verification', 'Check an attempt\'s record', RecordCheck::class)]
    public function verify(Attempt $attempt, VerifyRecord $verify): JsonResponse
    {
        return new JsonResponse(RecordCheck::from($verify($attempt)));
    }

    #[Post('/attempts/{attempt}/verdicts', 'Give a step its verdict, or take it back', ActAnswer::class, VerdictRequest::class)]
    public function verdict(VerdictRequest $request, Attempt $attempt, RecordVerdict $record): JsonResponse
    {
        Gate::authorize('record', $attempt);

        return $this->answer($record($attempt, $request->person(), $request->safe()->except(['device_time', 'sent_at', 'counter']), $request->stamp()));
    }

    #[Post('/attempts/{attempt}/notes', 'Write a step\'s note', ActAnswer::class, NoteRequest::class)]
    public function note(NoteRequest $request, Attempt $attempt, WriteNote $write): JsonResponse
    {
        Gate::authorize('record', $attempt);

        return $this->answer($write($attempt, $request->person(), $request->safe()->only(['round', 'step', 'note']), $request->stamp()));
    }

    #[Post('/attempts/{attempt}/finish', 'End an attempt', ActAnswer::class, FinishRequest::class)]
    public function finish(FinishRequest $request, Attempt $attempt, FinishAttempt $finish): JsonResponse
    {
        Gate::authorize('record', $attempt);
        $fields = $request->safe()->only(['verdict', 'note', 'active_ms']);
        if ($request->filled('time')) {
            $fields['corrected_ms'] = Duration::fromText($request->string('time')->toString())->milliseconds;
        }

        return $this->answer($finish($attempt, $request->person(), $fields, $request->stamp()));
    }

    #[Post('/attempts/{attempt}/time', 'Correct an attempt\'s measured time', AttemptDetail::class, TimeRequest::class)]
    public function time(TimeRequest $request, Attempt $attempt, CorrectTime $correct): JsonResponse
    {
        Gate::authorize('correctTime', $attempt);
        $correct($attempt, $request->person(), Duration::fromText($request->string('time')->toString()), $request->stamp());

        return new JsonResponse(AttemptDetail::from($attempt->refresh(), $request->person()->id));
    }

    #[Post('/attempts/{attempt}/take-over', 'Take an open attempt over from another person', AttemptDetail::class, StampRequest::class)]
    public function takeOver(StampRequest $request, Attempt $attempt, TakeOver $take): JsonResponse
    {
        Gate::authorize('takeOver', $attempt);

        return new JsonResponse(AttemptDetail::from($take($attempt, $request->person(), $request->stamp()), $request->person()->id));
    }

    private function answer(?LateAct $late): JsonResponse
    {
        return new JsonResponse(ActAnswer::from($late), null === $late ? 200 : 202);
    }
}
