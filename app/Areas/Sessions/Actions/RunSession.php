<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Sessions\Exceptions\SessionConflict;
use LucidStep\App\Areas\Setup\Queries\ProjectReferences;
use LucidStep\App\Models\Charter;
use LucidStep\App\Models\TestSession;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\DeviceStamp;
use LucidStep\App\Support\Record\SessionJournal;
use LucidStep\App\Support\Transactions;
use LucidStep\Core\Record\Chain;
use LucidStep\Core\Sessions\Focus;
use LucidStep\Core\Sessions\SessionState;
use LucidStep\Core\Sessions\Work;

/**
 * Runs a session: started, paused, gone on with, extended, switched, stopped. What a device did while the server was away counts from when
 * it was done.
 */
final readonly class RunSession
{
    /** The longest time box, in minutes. */
    public const LONGEST_BOX = 24 * 60;

    public function __construct(private SessionJournal $journal, private ChangeSession $change, private PublishChange $announce) {}

    /**
     * Starts a session of a charter. Another one of the same person that runs is paused: one person explores one thing at a time.
     *
     * @param  string  $id as the device chose it; started again, it is there once
     * @param  array{build_id?: ?string, configuration_id?: ?string, environment?: ?string}  $on what it runs on; what is left out is as
     *     the charter says
     *
     * @throws ValidationException when something it runs on is none of the project
     * @throws SessionConflict     when the charter was dropped, or the id is taken
     */
    public function start(Charter $charter, User $actor, string $id, array $on, DeviceStamp $stamp): TestSession
    {
        return Transactions::run(function () use ($charter, $actor, $id, $on, $stamp): TestSession {
            $there = TestSession::query()->find($id);
            if (null !== $there) {
                return $there->charter_id === $charter->id && $there->tester_id === $actor->id
                    ? $there
                    : throw SessionConflict::notTheSame();
            }
            $charter = Charter::query()->lockForUpdate()->findOrFail($charter->id);
            if (null !== $charter->dropped_at) {
                throw SessionConflict::dropped();
            }
            $build = \array_key_exists('build_id', $on) ? $on['build_id'] : $charter->build_id;
            $configuration = \array_key_exists('configuration_id', $on) ? $on['configuration_id'] : $charter->configuration_id;
            ProjectReferences::check($charter->project_id, $build, $configuration);
            $at = ChangeSession::moment($stamp);
            $this->pauseOther($actor, $at);
            $session = new TestSession([
                'project_id' => $charter->project_id,
                'charter_id' => $charter->id,
                'number' => 1 + (int) TestSession::query()->where('charter_id', $charter->id)->max('number'),
                'tester_id' => $actor->id,
                'build_id' => $build,
                'configuration_id' => $configuration,
                'environment' => trim($on['environment'] ?? ''),
                'state' => SessionState::Running,
                'box_ms' => $charter->box_minutes * 60_000,
                'runs' => [[$at, null]],
                'switches' => [],
                'time_moves' => [],
                'started_at' => Carbon::createFromTimestampMsUTC($at),
                'sequence' => 0,
                'head' => Chain::start($id),
            ]);
            $session->id = $id;
            $session->save();
            $this->journal->append(
                $session,
                $actor,
                'started',
                ['charter' => $charter->id, 'build' => $build, 'configuration' => $configuration, 'environment' => $session->environment],
                $stamp,
            );
            $session->save();
            ($this->announce)($charter->project_id, 'session', $session->id);

            return $session;
        });
    }

    /**
     * Pauses it, goes on, or stops it.
     *
     * @throws SessionConflict when it is over
     */
    public function move(TestSession $session, User $actor, SessionState $to, DeviceStamp $stamp): TestSession
    {
        return ($this->change)($session, $actor, function (TestSession $session) use ($actor, $to, $stamp): void {
            if (!$session->state->isOpen() && $to !== $session->state) {
                throw SessionConflict::over($session->state);
            }
            if ($to === $session->state) {
                return;
            }
            $at = ChangeSession::moment($stamp);
            if (SessionState::Running === $to) {
                $this->pauseOther($actor, $at);
            }
            $this->put($session, $actor, $to, $at, $stamp);
        });
    }

    /**
     * @param  int  $minutes the whole time box from now on
     */
    public function extend(TestSession $session, User $actor, int $minutes, DeviceStamp $stamp): TestSession
    {
        return ($this->change)($session, $actor, function (TestSession $session) use ($actor, $minutes, $stamp): void {
            if (!$session->state->isOpen()) {
                throw SessionConflict::over($session->state);
            }
            $session->box_ms = $minutes * 60_000;
            $this->journal->append($session, $actor, 'box_set', ['box_ms' => $session->box_ms], $stamp);
        });
    }

    /**
     * Says what the time goes to from now on.
     */
    public function switch(TestSession $session, User $actor, Focus|Work $to, DeviceStamp $stamp): TestSession
    {
        return ($this->change)($session, $actor, function (TestSession $session) use ($actor, $to, $stamp): void {
            if (SessionState::Debriefed === $session->state) {
                throw SessionConflict::signedOff();
            }
            $switches = [...$session->switches, [ChangeSession::moment($stamp), $to->value]];
            usort($switches, static fn(array $a, array $b): int => $a[0] <=> $b[0]);
            $session->switches = $switches;
            $this->journal->append($session, $actor, 'switched', ['to' => $to->value], $stamp);
        });
    }

    /**
     * Moves time from one share to another of the same split.
     *
     * @throws ValidationException when there is not so much
     */
    public function moveTime(TestSession $session, User $actor, Focus|Work $from, Focus|Work $to, int $ms, DeviceStamp $stamp): TestSession
    {
        return ($this->change)($session, $actor, function (TestSession $session) use ($actor, $from, $to, $ms, $stamp): void {
            if ($session->state->isOpen()) {
                throw SessionConflict::stillOpen();
            }
            if (SessionState::Debriefed === $session->state) {
                throw SessionConflict::signedOff();
            }
            try {
                $session->shares((int) $session->stopped_at?->getTimestampMs())->moved($from, $to, $ms);
            } catch (\DomainException $e) {
                throw ValidationException::withMessages(['ms' => $e->getMessage()]);
            }
            $session->time_moves = [...$session->time_moves, [$from->value, $to->value, $ms]];
            $this->journal->append($session, $actor, 'time_moved', ['from' => $from->value, 'to' => $to->value, 'ms' => $ms], $stamp);
        });
    }

    private function pauseOther(User $actor, int $at): void
    {
        $other = TestSession::query()->where('tester_id', $actor->id)->where('state', SessionState::Running)->lockForUpdate()->first();
        if (null !== $other) {
            $this->put($other, $actor, SessionState::Paused, $at, new DeviceStamp());
            $other->save();
            ($this->announce)($other->project_id, 'session', $other->id);
        }
    }

    private function put(TestSession $session, User $actor, SessionState $to, int $at, DeviceStamp $stamp): void
    {
        $clock = SessionState::Running === $to ? $session->clock()->started($at) : $session->clock()->stopped($at);
        $session->runs = $clock->runs();
        $session->state = $to;
        $kind = match ($to) {
            SessionState::Running => 'resumed',
            SessionState::Paused => 'paused',
            default => 'stopped',
        };
        if (SessionState::Stopped === $to) {
            $session->stopped_at = Carbon::createFromTimestampMsUTC($at);
        }
        $this->journal->append($session, $actor, $kind, ['active_ms' => $clock->at($at)], $stamp);
    }
}
