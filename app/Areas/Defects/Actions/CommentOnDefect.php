<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Defects\Exceptions\DefectConflict;
use LucidStep\App\Areas\Defects\Tracker\TrackerQueue;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\DefectComment;
use LucidStep\App\Models\DefectFile;
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
    public function __construct(
        private PublishChange $announce,
        private TellOfDefect $tell,
        private TrackerQueue $tracker,
        private AttachFile $attach,
    ) {}

    /**
     * @param  ?string  $id as the device chose it: files that were added for it go with it, and said again it is there once
     *
     * @throws ValidationException when nothing is said
     */
    public function write(Defect $defect, User $by, string $text, ?string $id): DefectComment
    {
        $said = null === $id ? null : DefectComment::query()->find($id);
        if (null !== $said) {
            return $said->defect_id === $defect->id && $said->author_id === $by->id
                ? $said
                : throw ValidationException::withMessages(['id' => 'Something else has this id.']);
        }
        $files = null === $id ? [] : $this->files($defect, $by, $id);
        self::check($text, $files);
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
        if ('' !== $text) {
            $this->tracker->said($defect, $by, $text);
        }
        foreach ($files as $file) {
            $this->tracker->attached($defect, $by, $file);
        }
        ($this->announce)($defect->project_id, 'defect', $defect->id);

        return $comment;
    }

    /**
     * Whoever is named only now is told; whoever was named before is not told again.
     *
     * @throws DefectConflict      for whoever did not write it, once it stands, and where it was taken out
     * @throws ValidationException when nothing is left of it
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
        self::check($text, $this->files($comment->defect, $by, $comment->id));
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
            ...Removals::trace($by, $reason),
        ]);
        foreach (DefectFile::query()->where('comment_id', $comment->id)->whereNull('removed_at')->get() as $file) {
            $this->attach->remove($file, $by, $reason);
        }
        TakeOut::told($comment->defect->project_id, $texts);
        $this->tracker->takeOut($comment->defect, $texts[0]);
        TakeOut::storedAnswers([$comment->author_id], $comment->created_at, $texts);
        Removals::add($comment->defect->project_id, null, 'message', $comment->id, $reason, $by);
        ($this->announce)($comment->defect->project_id, 'defect', $comment->defect_id);

        return $comment;
    }

    /**
     * @return list<DefectFile> what its author added for it
     */
    private function files(Defect $defect, User $by, string $comment): array
    {
        return array_values(
            DefectFile::query()
                ->with('file')
                ->where(['defect_id' => $defect->id, 'comment_id' => $comment, 'added_by_id' => $by->id])
                ->whereNull('removed_at')
                ->orderBy('created_at')
                ->get()
                ->all(),
        );
    }

    /**
     * @param  list<DefectFile>  $files
     *
     * @throws ValidationException when there is neither a word nor a file
     */
    private static function check(string $text, array $files): void
    {
        if ('' === $text && [] === $files) {
            throw ValidationException::withMessages(['text' => 'Write what you want to say.']);
        }
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
