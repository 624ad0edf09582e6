<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Arr;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Areas\Defects\Data\DefectLine;
use LucidStep\App\Areas\Defects\Queries\KnownDefects;
use LucidStep\App\Areas\Walk\Actions\CorrectTime;
use LucidStep\App\Areas\Walk\Actions\RecordInAttempt;
use LucidStep\App\Areas\Walk\Actions\RestoreWalkedEntry;
use LucidStep\App\Areas\Walk\Actions\StartAttempt;
use LucidStep\App\Areas\Walk\Actions\TakeOverAttempt;
use LucidStep\App\Areas\Walk\Commands\AttemptCommand;
use LucidStep\App\Areas\Walk\Data\AttemptDetail;
use LucidStep\App\Areas\Walk\Data\EarlierAttempt;
use LucidStep\App\Areas\Walk\Http\Requests\DeviceAttemptRequest;
use LucidStep\App\Areas\Walk\Http\Requests\EnvironmentRequest;
use LucidStep\App\Areas\Walk\Http\Requests\FinishRequest;
use LucidStep\App\Areas\Walk\Http\Requests\IdleTimeRequest;
use LucidStep\App\Areas\Walk\Http\Requests\NoteRequest;
use LucidStep\App\Areas\Walk\Http\Requests\RetryRequest;
use LucidStep\App\Areas\Walk\Http\Requests\RoundRequest;
use LucidStep\App\Areas\Walk\Http\Requests\StartAttemptRequest;
use LucidStep\App\Areas\Walk\Http\Requests\TakeOverRequest;
use LucidStep\App\Areas\Walk\Http\Requests\TimeRequest;
use LucidStep\App\Areas\Walk\Http\Requests\VerdictRequest;
use LucidStep\App\Areas\Walk\Http\Resources\CommandResult;
use LucidStep\App\Areas\Walk\Http\Resources\DefectDraft;
use LucidStep\App\Areas\Walk\Queries\DraftDefect;
use LucidStep\App\Areas\Walk\Queries\ReadAttempt;
use LucidStep\App\Areas\Walk\Queries\ReadEarlierAttempts;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Entry;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Http\ApiRequest;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\Core\Access\Permission;
use LucidStep\Core\Forecast\Duration;

/**
 * The walk: attempts and what is recorded in them. An act that arrives too late is kept and answered with 202.
 */
final readonly class AttemptController
{
    public function __construct(private ReadAttempt $read, private RecordInAttempt $record) {}

    #[
        Post(
            '/entries/{entry}/attempts',
            'Start an attempt, or go on with the open one',
            AttemptDetail::class,
            StartAttemptRequest::class,
            201,
        ),
    ]
    #[Needs(Permission::Record)]
    public function store(StartAttemptRequest $request, Entry $entry, StartAttempt $start, Memberships $memberships): JsonResponse
    {
        Gate::authorize('walk', $entry);
        $role = $memberships->role($request->person(), $entry->project_id) ?? throw new \LogicException('The address lets strangers in.');
        $word = $request->input('word');
        $attempt = $start(
            $entry,
            $request->person(),
            $role,
            $request->stamp(),
            $request->boolean('again'),
            \is_string($word) ? $word : null,
            Arr::only((array) $request->validated(), ['build_id', 'configuration_id', 'environment_id', 'environment']),
        );

        return new JsonResponse(($this->read)($attempt, $request->person()->id), 201);
    }

    #[Get('/attempts/{attempt}', 'An attempt step by step', AttemptDetail::class)]
    #[Needs(Permission::SeeEvidence)]
    public function show(Request $request, Attempt $attempt, Memberships $memberships): JsonResponse
    {
        return new JsonResponse(($this->read)($attempt, $memberships->person($request)->id));
    }

    #[Post('/attempts/{attempt}/verdicts', 'Give a step its verdict, or take it back', CommandResult::class, VerdictRequest::class)]
    #[Needs(Permission::Record, or: 'record')]
    public function verdict(VerdictRequest $request, Attempt $attempt): JsonResponse
    {
        return $this->record($request, $attempt, $request->command());
    }

    #[Post('/attempts/{attempt}/notes', 'Write a step\'s note', CommandResult::class, NoteRequest::class)]
    #[Needs(Permission::Record, or: 'record')]
    public function note(NoteRequest $request, Attempt $attempt): JsonResponse
    {
        return $this->record($request, $attempt, $request->command());
    }

    #[Post('/attempts/{attempt}/finish', 'End an attempt', CommandResult::class, FinishRequest::class)]
    #[Needs(Permission::Record, or: 'record')]
    public function finish(FinishRequest $request, Attempt $attempt): JsonResponse
    {
        return $this->record($request, $attempt, $request->command());
    }

    #[Post('/attempts/{attempt}/time', 'Correct an attempt\'s measured time', AttemptDetail::class, TimeRequest::class)]
    #[Needs(Permission::Record)]
    public function time(TimeRequest $request, Attempt $attempt, CorrectTime $correct): JsonResponse
    {
        Gate::authorize('correctTime', $attempt);
        $correct($attempt, $request->person(), Duration::fromText($request->string('time')->toString()), $request->stamp());

        return new JsonResponse(($this->read)($attempt->refresh(), $request->person()->id));
    }

    #[Post('/attempts/{attempt}/take-over', 'Take an open attempt over from another person', AttemptDetail::class, TakeOverRequest::class)]
    #[Needs(Permission::Record)]
    public function takeOver(TakeOverRequest $request, Attempt $attempt, TakeOverAttempt $take): JsonResponse
    {
        Gate::authorize('takeOver', $attempt);

        return new JsonResponse(
            ($this->read)(
                $take($attempt, $request->person(), $request->stamp(), $request->string('word')->toString()),
                $request->person()->id,
            ),
        );
    }

    #[
        Post(
            '/entries/{walked}/device-attempts',
            'Take in an attempt that a device began while the server was away; an entry taken out of its cycle ' .
                'meanwhile comes back with it',
            AttemptDetail::class,
            DeviceAttemptRequest::class,
            201,
        ),
    ]
    #[Needs(Permission::Read)]
    public function takeIn(
        DeviceAttemptRequest $request,
        string $walked,
        RestoreWalkedEntry $find,
        StartAttempt $start,
        Memberships $memberships,
    ): JsonResponse {
        [$entry, $parallelReason] = $find($walked, $request->person());
        $attempt = $start->takeIn(
            $entry,
            $request->person(),
            $memberships->role($request->person(), $entry->project_id),
            $request->stamp(),
            $request->string('id')->toString(),
            $request->string('case_version_id')->toString(),
            $parallelReason,
        );

        return new JsonResponse(($this->read)($attempt, $request->person()->id), 201);
    }

    #[Get('/attempts/{attempt}/earlier', 'The ended attempts before this one, laid beside it step by step', EarlierAttempt::class, true)]
    #[Needs(Permission::SeeEvidence)]
    public function earlier(Attempt $attempt, ReadEarlierAttempts $read): JsonResponse
    {
        return new JsonResponse($read($attempt));
    }

    #[
        Get('/attempts/{attempt}/known-defects', 'Defects linked to this very step already, in any cycle', DefectLine::class, true, [
            'step' => 'The step, from 1',
        ]),
    ]
    #[Needs(Permission::SeeEvidence)]
    public function known(Request $request, Attempt $attempt, KnownDefects $known): JsonResponse
    {
        return new JsonResponse($known($attempt, $request->query->getInt('step') ?: null));
    }

    #[
        Post(
            '/attempts/{attempt}/rounds',
            'Leave a round out, take it up again, or walk it once more',
            CommandResult::class,
            RoundRequest::class,
        ),
    ]
    #[Needs(Permission::Record, or: 'record')]
    public function round(RoundRequest $request, Attempt $attempt): JsonResponse
    {
        return $this->record($request, $attempt, $request->command());
    }

    #[Post('/attempts/{attempt}/tries', 'Count a try of a step that comes and goes', CommandResult::class, RetryRequest::class)]
    #[Needs(Permission::Record, or: 'record')]
    public function tried(RetryRequest $request, Attempt $attempt): JsonResponse
    {
        return $this->record($request, $attempt, $request->command());
    }

    #[Post('/attempts/{attempt}/away', 'Say how much of a time without a sign was work', CommandResult::class, IdleTimeRequest::class)]
    #[Needs(Permission::Record, or: 'record')]
    public function away(IdleTimeRequest $request, Attempt $attempt): JsonResponse
    {
        return $this->record($request, $attempt, $request->command());
    }

    #[Post('/attempts/{attempt}/surroundings', 'Say what an attempt is really walked on', CommandResult::class, EnvironmentRequest::class)]
    #[Needs(Permission::Record, or: 'record')]
    public function surroundings(EnvironmentRequest $request, Attempt $attempt): JsonResponse
    {
        return $this->record($request, $attempt, $request->command());
    }

    #[
        Get(
            '/attempts/{attempt}/defect-draft',
            'A defect drafted from what was walked',
            DefectDraft::class,
            query: [
                'round' => 'The round, from 1',
                'step' => 'The step, from 1',
                'happened' => 'What happened, when it is not yet recorded',
            ],
        ),
    ]
    #[Needs(Permission::SeeEvidence)]
    public function draft(Request $request, Attempt $attempt, DraftDefect $draft): JsonResponse
    {
        $number = static fn(string $name): ?int => $request->query->getInt($name) ?: null;

        return new JsonResponse(
            DefectDraft::from($draft($attempt, $number('round'), $number('step'), $request->query->getString('happened'))),
        );
    }

    private function record(ApiRequest $request, Attempt $attempt, AttemptCommand $command): JsonResponse
    {
        Gate::authorize('record', $attempt);

        return CommandResult::respond(($this->record)($attempt, $request->person(), $command, $request->stamp()));
    }
}
