<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Actions;

use Illuminate\Support\Carbon;
use LucidStep\App\Areas\Defects\Exceptions\DefectConflict;
use LucidStep\App\Areas\Defects\Tracker\TrackerQueue;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\DefectComment;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Problems\AlreadyDone;
use LucidStep\App\Support\Record\Removals;
use LucidStep\App\Support\Record\TakeOut;
use LucidStep\Core\Defects\Mentions;
use LucidStep\Core\Defects\Talk;
use LucidStep\Core\Record\FreeText;

/**
 * The talk at a defect: what is said, mended within a quarter of an hour, and taken out with its trace.
 */
final readonly class CommentOnDefect
{
    public function __construct(private PublishChange $announce, private TellOfDefect $tell, private TrackerQueue $tracker) {}

    /**
     * @param  ?string  $id as the device chose it
     */
    public function write(Defect $defect, User $by, string $text, ?string $id): DefectComment
    {
        $comment = new DefectComment([
            'project_id' => $defect->project_id,
            'defect_id' => $defect->id,
            'author_id' => $by->id,
            'text' => $text,
            'created_at' => Carbon::now(),
        ]);
        if (null !== $id) {
            $comment->id = $id;
        }
        $comment->save();
        $this->tell->said($defect, $by, $text, self::named($defect, $text));
        $this->tracker->said($defect, $by, $text);
        ($this->announce)($defect->project_id, 'defect', $defect->id);

        return $comment;
    }

    /**
     * Whoever is named only now is told; whoever was named before is not told again.
     *
     * @throws DefectConflict for whoever did not write it, once it stands, and where it was taken out
     */
    public function mend(DefectComment $comment, User $by, string $text): DefectComment
    {
        if ($comment->author_id !== $by->id) {
            throw DefectConflict::othersWords();
        }
        $comment = DefectComment::query()->with('defect')->lockForUpdate()->findOrFail($comment->id);
        if (null !== $comment->removed_at || Talk::standsAt($comment->created_at) <= Carbon::now()) {
            throw DefectConflict::stands();
        }
        $before = self::named($comment->defect, $comment->text);
        $comment->update(['text' => $text, 'edited_at' => Carbon::now()]);
        $this->tell->named($comment->defect, $by, $text, array_values(array_diff(self::named($comment->defect, $text), $before)));
        ($this->announce)($comment->defect->project_id, 'defect', $comment->defect_id);

        return $comment;
    }

    /**
     * @throws AlreadyDone when its words are out already
     */
    public function remove(DefectComment $comment, User $by, string $reason): DefectComment
    {
        $comment = DefectComment::query()->with('defect')->lockForUpdate()->findOrFail($comment->id);
        if (null !== $comment->removed_at) {
            throw AlreadyDone::removed();
        }
        $texts = [$comment->text];
        $comment->update([
            'text' => FreeText::REMOVED,
            'removed_by_id' => $by->id,
            'removed_at' => Carbon::now(),
            'removed_reason' => $reason,
        ]);
        TakeOut::told($comment->defect->project_id, $texts);
        $this->tracker->takeOut($comment->defect, $texts[0]);
        TakeOut::storedAnswers([$comment->author_id], $comment->created_at, $texts);
        Removals::add($comment->defect->project_id, null, 'message', $comment->id, $reason, $by);
        ($this->announce)($comment->defect->project_id, 'defect', $comment->defect_id);

        return $comment;
    }

    /**
     * @return list<string> people of the project who are named
     */
    private static function named(Defect $defect, string $text): array
    {
        if (!str_contains($text, '@')) {
            return [];
        }
        $members = Membership::query()->where('project_id', $defect->project_id)->with('user')->get();

        return Mentions::in($text, $members->mapWithKeys(static fn(Membership $m): array => [$m->user_id => $m->user->name])->all());
    }
}
