<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Actions;

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Defects\Exceptions\DefectConflict;
use LucidStep\App\Areas\Defects\Tracker\TrackerQueue;
use LucidStep\App\Areas\Evidence\Actions\CheckStorage;
use LucidStep\App\Areas\Evidence\Actions\DropFiles;
use LucidStep\App\Areas\Evidence\Actions\StoreFile;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\DefectComment;
use LucidStep\App\Models\DefectFile;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Problems\AlreadyDone;
use LucidStep\App\Support\Record\Removals;
use LucidStep\Core\Defects\Talk;
use LucidStep\Core\Record\FreeText;

/**
 * Files that stand with a defect, or with what is said of it: added, taken back, and taken out with their trace.
 */
final readonly class AttachFile
{
    /** So many stand with a defect, with all that is said of it. */
    public const MOST = 200;

    public function __construct(
        private CheckStorage $check,
        private StoreFile $store,
        private DropFiles $drop,
        private TrackerQueue $tracker,
        private PublishChange $announce,
    ) {}

    /**
     * @param  string  $id as the device chose it: added again it is there once
     * @param  ?string  $comment what it goes with, by the id that its author chose; null: the defect itself
     *
     * @throws ValidationException when the file is not taken, or there is no room for it
     * @throws DefectConflict      when that was said already
     */
    public function add(Defect $defect, User $by, UploadedFile $upload, string $name, string $id, ?string $comment): DefectFile
    {
        $there = DefectFile::query()->with('file')->find($id);
        if (null !== $there) {
            return $there->defect_id === $defect->id && $there->added_by_id === $by->id
                ? $there
                : throw ValidationException::withMessages(['id' => 'Something else has this id.']);
        }
        ($this->check)($defect->project_id, (int) $upload->getSize());
        if (DefectFile::query()->where('defect_id', $defect->id)->count() >= self::MOST) {
            throw ValidationException::withMessages(['file' => 'With this defect stand ' . self::MOST . ' files. Take some off first.']);
        }
        if (null !== $comment && DefectComment::query()->whereKey($comment)->exists()) {
            throw DefectConflict::stands();
        }
        $stored = ($this->store)($upload);
        $file = new DefectFile([
            'project_id' => $defect->project_id,
            'defect_id' => $defect->id,
            'comment_id' => $comment,
            'sha256' => $stored->sha256,
            'name' => mb_substr('' === $name ? $upload->getClientOriginalName() : $name, 0, 200),
            'added_by_id' => $by->id,
            'created_at' => Carbon::now(),
        ]);
        $file->id = $id;
        $file->save();
        $file->setRelation('file', $stored);
        if (null === $comment) {
            $this->tracker->attached($defect, $by, $file);
            ($this->announce)($defect->project_id, 'defect', $defect->id);
        }

        return $file;
    }

    /**
     * Takes it off again: what it goes with is not said yet, or it stands there for no quarter of an hour.
     *
     * @throws DefectConflict for whoever did not add it, and once it stands
     */
    public function takeBack(DefectFile $file, User $by): void
    {
        if ($file->added_by_id !== $by->id) {
            throw DefectConflict::othersFile();
        }
        $file = DefectFile::query()->with('defect')->lockForUpdate()->findOrFail($file->id);
        $isSaid = null !== $file->comment_id && DefectComment::query()->whereKey($file->comment_id)->exists();
        $isOld = null === $file->comment_id && Talk::standsAt($file->created_at) <= Carbon::now();
        if ($isSaid || $isOld || null !== $file->removed_at) {
            throw DefectConflict::stands();
        }
        $file->delete();
        ($this->drop)([(string) $file->sha256]);
        ($this->announce)($file->project_id, 'defect', $file->defect_id);
    }

    /**
     * Drops what was added for words that nobody said since.
     *
     * @return int how many files
     */
    public function forgetUnsaid(Carbon $before): int
    {
        $unsaid = DefectFile::query()
            ->whereNotNull('comment_id')
            ->whereNotIn('comment_id', DB::table('defect_comments')->select('id'))
            ->where('created_at', '<', $before)
            ->get();
        DefectFile::query()->whereKey($unsaid->modelKeys())->delete();
        ($this->drop)(array_values(array_unique(array_map(strval(...), $unsaid->pluck('sha256')->filter()->all()))));

        return $unsaid->count();
    }

    /**
     * @throws AlreadyDone when it is out already
     */
    public function remove(DefectFile $file, User $by, string $reason): DefectFile
    {
        $file = DefectFile::query()->with('defect')->lockForUpdate()->findOrFail($file->id);
        if (null !== $file->removed_at) {
            throw AlreadyDone::removed();
        }
        $sha256 = (string) $file->sha256;
        $file->update([
            'sha256' => null,
            'name' => FreeText::REMOVED,
            ...Removals::trace($by, $reason),
        ]);
        ($this->drop)([$sha256]);
        Removals::add($file->project_id, null, 'message', $file->id, $reason, $by);
        ($this->announce)($file->project_id, 'defect', $file->defect_id);

        return $file;
    }
}
