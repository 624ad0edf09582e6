<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Notices\Actions\NotifyPeople;
use LucidStep\App\Areas\Notices\Data\NoticeKind;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\SessionComment;
use LucidStep\App\Models\TestSession;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Problems\AlreadyDone;
use LucidStep\App\Support\Record\Removals;
use LucidStep\App\Support\Record\TakeOut;
use LucidStep\App\Support\Transactions;
use LucidStep\Core\Record\FreeText;

/**
 * What is said of a session by those who read it; it stands beside the record, which is its tester's. Whoever ran it, and whoever is asked
 * to read it, is told.
 */
final readonly class CommentOnSession
{
    public function __construct(private NotifyPeople $notify, private PublishChange $announce) {}

    /**
     * @param  ?string  $to who is asked to read it
     *
     * @throws ValidationException when nothing is said, or whoever is asked has no part in the project
     */
    public function say(TestSession $session, User $by, string $text, ?string $to): void
    {
        if ('' === trim($text)) {
            throw ValidationException::withMessages(['text' => 'Write what you want to say.']);
        }
        $isMember = Membership::query()->where('project_id', $session->project_id)->where('user_id', $to)->exists();
        if (null !== $to && !$isMember) {
            throw ValidationException::withMessages(['to_id' => 'This person has no part in the project.']);
        }
        Transactions::run(function () use ($session, $by, $text, $to): void {
            SessionComment::query()->create([
                'project_id' => $session->project_id,
                'session_id' => $session->id,
                'author_id' => $by->id,
                'text' => trim($text),
                'to_id' => $to,
                'created_at' => Carbon::now(),
            ]);
            ($this->announce)($session->project_id, 'session', $session->id);
            $project = Project::query()->findOrFail($session->project_id);
            $charter = $session->charter;
            $tell = fn(string $person, string $words) => $person === $by->id
                ? null
                : $this->notify->inProject(
                    NoticeKind::Session,
                    $project,
                    [$person],
                    $words,
                    "/sessions/{$charter->key}?run={$session->number}",
                );
            if (null !== $to) {
                $tell($to, "{$by->name} asks you to read {$charter->key}: " . trim($text));
            }
            if ($session->tester_id !== $to) {
                $tell($session->tester_id, "{$by->name} said of {$charter->key}: " . trim($text));
            }
        });
    }

    /**
     * @throws AlreadyDone when it is out already
     */
    public function remove(SessionComment $comment, User $by, string $reason): void
    {
        $comment = SessionComment::query()->lockForUpdate()->findOrFail($comment->id);
        if (null !== $comment->removed_at) {
            throw AlreadyDone::removed();
        }
        $texts = [$comment->text];
        $comment->update([
            'text' => FreeText::REMOVED,
            ...Removals::trace($by, $reason),
        ]);
        TakeOut::told($comment->project_id, $texts);
        TakeOut::storedAnswers([$comment->author_id], $comment->created_at, $texts);
        Removals::add($comment->project_id, null, 'message', $comment->id, $reason, $by);
        ($this->announce)($comment->project_id, 'session', $comment->session_id);
    }
}
