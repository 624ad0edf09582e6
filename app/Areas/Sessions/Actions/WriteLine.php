<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Actions;

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Carbon;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Evidence\Actions\CheckStorage;
use LucidStep\App\Areas\Evidence\Actions\DropFiles;
use LucidStep\App\Areas\Evidence\Actions\StoreFile;
use LucidStep\App\Areas\Sessions\Exceptions\SessionConflict;
use LucidStep\App\Areas\Sessions\Queries\ReadTimeline;
use LucidStep\App\Models\SessionLine;
use LucidStep\App\Models\TestSession;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\DeviceStamp;
use LucidStep\App\Support\Problems\AlreadyDone;
use LucidStep\App\Support\Record\Removals;
use LucidStep\App\Support\Record\SessionJournal;
use LucidStep\App\Support\Record\TakeOut;
use LucidStep\Core\Record\FreeText;
use LucidStep\Core\Sessions\LineKind;
use LucidStep\Core\Sessions\Sentence;
use LucidStep\Core\Sessions\SessionState;

/**
 * Writes into a session's timeline, and mends and pins what stands there. What was written in time and arrives late takes its place.
 */
final readonly class WriteLine
{
    public function __construct(
        private ChangeSession $change,
        private SessionJournal $journal,
        private CheckStorage $check,
        private StoreFile $store,
        private DropFiles $drop,
        private PublishChange $announce,
    ) {}

    /**
     * @param  string  $id as the device chose it: written again, it is there once
     *
     * @throws SessionConflict     once it is signed off
     * @throws ValidationException when nothing is said
     */
    public function write(
        TestSession $session,
        User $actor,
        string $id,
        LineKind $kind,
        string $words,
        bool $pinned,
        DeviceStamp $stamp,
    ): SessionLine {
        if ('' === trim($words)) {
            throw ValidationException::withMessages(['words' => 'Write what you saw.']);
        }

        return $this->add($session, $actor, $id, ['kind' => $kind, 'words' => $words, 'pinned' => $pinned], $stamp);
    }

    /**
     * Keeps a capture, with words or without.
     */
    public function capture(
        TestSession $session,
        User $actor,
        string $id,
        UploadedFile $upload,
        string $name,
        string $words,
        DeviceStamp $stamp,
    ): SessionLine {
        ($this->check)($session->project_id, (int) $upload->getSize());
        $file = ($this->store)($upload);
        $name = mb_substr('' === $name ? $upload->getClientOriginalName() : $name, 0, 200);

        return $this->add(
            $session,
            $actor,
            $id,
            ['kind' => LineKind::Capture, 'words' => $words, 'sha256' => $file->sha256, 'name' => $name],
            $stamp,
        );
    }

    /**
     * Mends what was written, the former words kept, or pins it.
     *
     * @param  ?string  $words null: they stay
     * @param  ?bool  $pinned null: it stays
     *
     * @throws SessionConflict     once it is signed off
     * @throws ValidationException when nothing is left of it
     */
    public function mend(SessionLine $line, User $actor, ?string $words, ?bool $pinned, DeviceStamp $stamp): SessionLine
    {
        ($this->change)($line->session, $actor, function (TestSession $session) use (&$line, $actor, $words, $pinned, $stamp): void {
            self::checkOpen($session);
            $line = SessionLine::query()->lockForUpdate()->findOrFail($line->id);
            if (null !== $words && $words !== $line->words) {
                if (null !== $line->removed_at || $line->kind->isObserved()) {
                    throw ValidationException::withMessages(['words' => 'These words are not changed.']);
                }
                if ('' === trim($words) && LineKind::Capture !== $line->kind) {
                    throw ValidationException::withMessages(['words' => 'Write what you saw.']);
                }
                $line->fill(['former' => [...$line->former, $line->words], 'words' => $words]);
                $this->journal->append($session, $actor, 'line_changed', ['line' => $line->id, 'words' => $words], $stamp);
            }
            if (null !== $pinned && $pinned !== $line->pinned) {
                $line->pinned = $pinned;
                $this->journal->append($session, $actor, $pinned ? 'line_pinned' : 'line_unpinned', ['line' => $line->id], $stamp);
            }
            $line->save();
        });

        return $line;
    }

    /**
     * Takes words and file out for good; the trace stays.
     *
     * @throws AlreadyDone when they are out already
     */
    public function remove(SessionLine $line, User $by, string $reason): SessionLine
    {
        // The session first, as whoever writes in it locks them.
        $session = TestSession::query()->lockForUpdate()->findOrFail($line->session_id);
        $line = SessionLine::query()->lockForUpdate()->findOrFail($line->id);
        if (null !== $line->removed_at) {
            throw AlreadyDone::removed();
        }
        // Its sentence stands in what leads to a fault, and in what was filed of that. An address goes with a
        // visit, from all that was done there, and with the only act there.
        $there = SessionLine::query()->where('session_id', $session->id)->where('page', $line->page);
        $page = LineKind::Visit === $line->kind || 1 === (clone $there)->count() ? (string) $line->page : '';
        $seen = $line->kind->isObserved() ? [$page, $line->control, Sentence::of(ReadTimeline::core((object) $line->getAttributes()))] : [];
        if ('' !== $page) {
            $there->update(['page' => FreeText::REMOVED]);
        }
        $texts = array_values(array_filter([$line->words, ...$line->former, $line->value ?? '', $line->name, ...$seen]));
        $sha256 = $line->sha256;
        $line->update([
            'words' => '' === $line->words ? '' : FreeText::REMOVED,
            'former' => [],
            'value' => null === $line->value ? null : FreeText::REMOVED,
            'control' => '' === $line->control ? '' : FreeText::REMOVED,
            'name' => '' === $line->name ? '' : FreeText::REMOVED,
            'sha256' => null,
            ...Removals::trace($by, $reason),
        ]);
        if (null !== $sha256) {
            ($this->drop)([$sha256]);
        }
        Removals::add($line->project_id, null, 'message', $line->id, $reason, $by);
        $this->journal->takeOut($session, $texts, $by, $reason);
        $session->save();
        TakeOut::ofSession($line->project_id, $line->session_id, $texts);
        TakeOut::storedAnswers([$session->tester_id], $line->created_at, $texts);
        ($this->announce)($line->project_id, 'session', $line->session_id);

        return $line;
    }

    /**
     * @param  array<string, mixed>  $fields
     */
    private function add(TestSession $session, User $actor, string $id, array $fields, DeviceStamp $stamp): SessionLine
    {
        $line = SessionLine::query()->with('file')->find($id);
        if (null !== $line) {
            return $line->session_id === $session->id && $session->tester_id === $actor->id
                ? $line
                : throw ValidationException::withMessages(['id' => 'Something else has this id.']);
        }
        $line = new SessionLine();
        ($this->change)($session, $actor, function (TestSession $session) use ($line, $actor, $id, $fields, $stamp): void {
            self::checkOpen($session);
            $at = ChangeSession::moment($stamp);
            $line->fill([
                'project_id' => $session->project_id,
                'session_id' => $session->id,
                'number' => 1 + (int) SessionLine::query()->where('session_id', $session->id)->max('number'),
                'at_ms' => $session->clock()->at($at),
                'done_at' => Carbon::createFromTimestampMsUTC($at),
                'counter' => $stamp->counter,
                'created_at' => Carbon::now(),
                ...$fields,
            ]);
            $line->id = $id;
            $line->save();
            $this->journal->append(
                $session,
                $actor,
                'line_written',
                ['line' => $id, 'kind' => $line->kind->value, 'words' => $line->words, 'at_ms' => $line->at_ms, 'pinned' => $line->pinned],
                $stamp,
                null === $line->sha256 ? [] : [$line->sha256],
            );
        });

        return $line->load('file');
    }

    private static function checkOpen(TestSession $session): void
    {
        if (SessionState::Debriefed === $session->state) {
            throw SessionConflict::signedOff();
        }
    }
}
