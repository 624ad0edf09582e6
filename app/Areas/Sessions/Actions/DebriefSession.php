<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Actions;

use Illuminate\Support\Carbon;
use LucidStep\App\Areas\Notices\Actions\NotifyPeople;
use LucidStep\App\Areas\Notices\Data\NoticeKind;
use LucidStep\App\Areas\Sessions\Exceptions\SessionConflict;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\TestSession;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\DeviceStamp;
use LucidStep\App\Support\Record\SessionJournal;
use LucidStep\App\Support\Transactions;
use LucidStep\Core\Sessions\SessionState;

/**
 * What is said after a session: by who ran it, what was covered and what else there is to say; by a lead, that it was read.
 */
final readonly class DebriefSession
{
    public function __construct(
        private ChangeSession $change,
        private SessionJournal $journal,
        private NotifyPeople $notify,
        private PublishChange $announce,
    ) {}

    /**
     * @throws SessionConflict before it stopped, and once it is signed off
     */
    public function write(TestSession $session, User $actor, string $covered, string $remarks, DeviceStamp $stamp): TestSession
    {
        return ($this->change)($session, $actor, function (TestSession $session) use ($actor, $covered, $remarks, $stamp): void {
            match ($session->state) {
                SessionState::Stopped => null,
                SessionState::Debriefed => throw SessionConflict::signedOff(),
                default => throw SessionConflict::stillOpen(),
            };
            $session->fill(['covered' => $covered, 'remarks' => $remarks]);
            $this->journal->append($session, $actor, 'debrief_written', ['covered' => $covered, 'remarks' => $remarks], $stamp);
        });
    }

    /**
     * Seals the record: nothing is written into it any more.
     *
     * @throws SessionConflict before it stopped, once it is signed off, and for who ran it
     */
    public function signOff(TestSession $session, User $by, string $note): TestSession
    {
        return Transactions::run(function () use ($session, $by, $note): TestSession {
            $session = TestSession::query()->lockForUpdate()->findOrFail($session->id);
            match (true) {
                SessionState::Debriefed === $session->state => throw SessionConflict::signedOff(),
                SessionState::Stopped !== $session->state => throw SessionConflict::stillOpen(),
                $session->tester_id === $by->id => throw SessionConflict::ownWork(),
                default => null,
            };
            $session->fill([
                'state' => SessionState::Debriefed,
                'signed_by_id' => $by->id,
                'signed_at' => Carbon::now(),
                'sign_note' => $note,
            ]);
            $this->journal->append($session, $by, 'signed_off', ['note' => $note]);
            $session->save();
            ($this->announce)($session->project_id, 'session', $session->id);
            $charter = $session->charter;
            $this->notify->inProject(
                NoticeKind::Session,
                Project::query()->findOrFail($session->project_id),
                [$session->tester_id],
                "{$by->name} read {$charter->key} and signed it off" . ('' === $note ? '' : ": {$note}"),
                "/sessions/{$charter->key}",
            );

            return $session;
        });
    }
}
