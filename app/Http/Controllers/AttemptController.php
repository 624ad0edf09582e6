<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Actions\Walk\CorrectTime;
use LucidStep\App\Actions\Walk\CountTry;
use LucidStep\App\Actions\Walk\DecideAway;
use LucidStep\App\Actions\Walk\FindWalked;
use LucidStep\App\Actions\Walk\FinishAttempt;
use LucidStep\App\Actions\Walk\KeepRounds;
use LucidStep\App\Actions\Walk\KnownDefects;
use LucidStep\App\Actions\Walk\ReadEarlier;
use LucidStep\App\Actions\Walk\RecordVerdict;
use LucidStep\App\Actions\Walk\SaySurroundings;
use LucidStep\App\Actions\Walk\StartAttempt;
use LucidStep\App\Actions\Walk\TakeOver;
use LucidStep\App\Actions\Walk\WriteNote;
use LucidStep\App\Http\Docs\Get;
use LucidStep\App\Http\Docs\Post;
use LucidStep\App\Http\Requests\AwayRequest;
use LucidStep\App\Http\Requests\DeviceAttemptRequest;
use LucidStep\App\Http\Requests\FinishRequest;
use LucidStep\App\Http\Requests\NoteRequest;
use LucidStep\App\Http\Requests\RoundRequest;
use LucidStep\App\Http\Requests\StartAttemptRequest;
use LucidStep\App\Http\Requests\SurroundingsRequest;
use LucidStep\App\Http\Requests\TakeOverRequest;
use LucidStep\App\Http\Requests\TimeRequest;
use LucidStep\App\Http\Requests\TryRequest;
use LucidStep\App\Http\Requests\VerdictRequest;
use LucidStep\App\Http\Resources\ActAnswer;
use LucidStep\App\Http\Resources\AttemptDetail;
use LucidStep\App\Http\Resources\DefectLine;
use LucidStep\App\Http\Resources\EarlierAttempt;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\Entry;
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
        $attempt = $start($entry, $request->person(), $role, $request->stamp(), $request->boolean('again'), \is_string($word) ? $word : null, $request->safe()->only(['build_id', 'configuration_id', 'environment']));

        return new JsonResponse(AttemptDetail::from($attempt, $request->person()->id), 201);
    }

    #[Get('/attempts/{attempt}', 'An attempt step by step', AttemptDetail::class)]
    public function show(Request $request, Attempt $attempt, Memberships $memberships): JsonResponse
    {
        return new JsonResponse(AttemptDetail::from($attempt, $memberships->person($request)->id));
    }

    #[Post('/attempts/{attempt}/verdicts', 'Give a step its verdict, or take it back', ActAnswer::class, VerdictRequest::class)]
    public function verdict(VerdictRequest $request, Attempt $attempt, RecordVerdict $record): JsonResponse
    {
        Gate::authorize('record', $attempt);

        return ActAnswer::respond($record($attempt, $request->person(), $request->safe()->except(['device_time', 'sent_at', 'counter']), $request->stamp()));
    }

    #[Post('/attempts/{attempt}/notes', 'Write a step\'s note', ActAnswer::class, NoteRequest::class)]
    public function note(NoteRequest $request, Attempt $attempt, WriteNote $write): JsonResponse
    {
        Gate::authorize('record', $attempt);

        return ActAnswer::respond($write($attempt, $request->person(), $request->safe()->only(['round', 'step', 'note']), $request->stamp()));
    }

    #[Post('/attempts/{attempt}/finish', 'End an attempt', ActAnswer::class, FinishRequest::class)]
    public function finish(FinishRequest $request, Attempt $attempt, FinishAttempt $finish): JsonResponse
    {
        Gate::authorize('record', $attempt);
        $fields = $request->safe()->only(['verdict', 'note', 'active_ms']);
        if ($request->filled('time')) {
            $fields['corrected_ms'] = Duration::fromText($request->string('time')->toString())->milliseconds;
        }

        return ActAnswer::respond($finish($attempt, $request->person(), $fields, $request->stamp()));
    }

    #[Post('/attempts/{attempt}/time', 'Correct an attempt\'s measured time', AttemptDetail::class, TimeRequest::class)]
    public function time(TimeRequest $request, Attempt $attempt, CorrectTime $correct): JsonResponse
    {
        Gate::authorize('correctTime', $attempt);
        $correct($attempt, $request->person(), Duration::fromText($request->string('time')->toString()), $request->stamp());

        return new JsonResponse(AttemptDetail::from($attempt->refresh(), $request->person()->id));
    }

    #[Post('/attempts/{attempt}/take-over', 'Take an open attempt over from another person', AttemptDetail::class, TakeOverRequest::class)]
    public function takeOver(TakeOverRequest $request, Attempt $attempt, TakeOver $take): JsonResponse
    {
        Gate::authorize('takeOver', $attempt);

        return new JsonResponse(AttemptDetail::from($take($attempt, $request->person(), $request->stamp(), $request->string('word')->toString()), $request->person()->id));
    }

    #[Post('/entries/{walked}/device-attempts', 'Take in an attempt that a device began while the server was away; an entry taken out of its cycle meanwhile comes back with it', AttemptDetail::class, DeviceAttemptRequest::class, 201)]
    public function takeIn(DeviceAttemptRequest $request, string $walked, FindWalked $find, StartAttempt $start, Memberships $memberships): JsonResponse
    {
        [$entry, $beside] = $find($walked, $request->person());
        $attempt = $start->takeIn($entry, $request->person(), $memberships->role($request->person(), $entry->project_id), $request->stamp(), $request->string('id')->toString(), $request->string('case_version_id')->toString(), $beside);

        return new JsonResponse(AttemptDetail::from($attempt, $request->person()->id), 201);
    }

    #[Get('/attempts/{attempt}/earlier', 'The ended attempts before this one, laid beside it step by step', EarlierAttempt::class, true)]
    public function earlier(Attempt $attempt, ReadEarlier $read): JsonResponse
    {
        return new JsonResponse($read($attempt));
    }

    #[Get('/attempts/{attempt}/known-defects', 'Defects linked to this very step already, in any cycle', DefectLine::class, true, ['step' => 'The step, from 1'])]
    public function known(Request $request, Attempt $attempt, KnownDefects $known): JsonResponse
    {
        $found = Defect::query()->getModel()->newCollection($known($attempt, $request->query->getInt('step') ?: null))->load('reporter', 'assignee', 'case', 'build');

        return new JsonResponse(array_values($found->map(DefectLine::from(...))->all()));
    }

    #[Post('/attempts/{attempt}/rounds', 'Leave a round out, take it up again, or walk it once more', ActAnswer::class, RoundRequest::class)]
    public function round(RoundRequest $request, Attempt $attempt, KeepRounds $keep): JsonResponse
    {
        Gate::authorize('record', $attempt);

        return ActAnswer::respond($keep($attempt, $request->person(), $request->safe()->only(['round', 'act', 'reason']), $request->stamp()));
    }

    #[Post('/attempts/{attempt}/tries', 'Count a try of a step that comes and goes', ActAnswer::class, TryRequest::class)]
    public function tried(TryRequest $request, Attempt $attempt, CountTry $count): JsonResponse
    {
        Gate::authorize('record', $attempt);

        return ActAnswer::respond($count($attempt, $request->person(), ['round' => $request->integer('round'), 'step' => $request->integer('step'), 'failed' => $request->boolean('failed')], $request->stamp()));
    }

    #[Post('/attempts/{attempt}/away', 'Say how much of a time without a sign was work', ActAnswer::class, AwayRequest::class)]
    public function away(AwayRequest $request, Attempt $attempt, DecideAway $decide): JsonResponse
    {
        Gate::authorize('record', $attempt);

        return ActAnswer::respond($decide($attempt, $request->person(), ['away_ms' => $request->integer('away_ms'), 'counted_ms' => $request->integer('counted_ms')], $request->stamp()));
    }

    #[Post('/attempts/{attempt}/surroundings', 'Say what an attempt is really walked on', ActAnswer::class, SurroundingsRequest::class)]
    public function surroundings(SurroundingsRequest $request, Attempt $attempt, SaySurroundings $say): JsonResponse
    {
        Gate::authorize('record', $attempt);

        return ActAnswer::respond($say($attempt, $request->person(), $request->safe()->only(['build_id', 'configuration_id', 'environment']), $request->stamp()));
    }
}
