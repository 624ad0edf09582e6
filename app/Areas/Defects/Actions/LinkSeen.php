<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Actions;

use Illuminate\Support\Carbon;
use LucidStep\App\Areas\Defects\Exceptions\DefectConflict;
use LucidStep\App\Areas\Defects\Tracker\TrackerQueue;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\DefectFile;
use LucidStep\App\Models\Repro;
use LucidStep\App\Models\SessionLine;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\PublishChange;

/**
 * Links a defect to the line of a session that shows it, with captures of that session. A line shows one defect; linking twice changes
 * nothing.
 */
final readonly class LinkSeen
{
    public function __construct(private TrackerQueue $tracker, private PublishChange $announce) {}

    /**
     * What leads to the line, for a defect that is to be linked to it.
     *
     * @throws DefectConflict when another one is
     */
    public function repro(SessionLine $line, User $by, ?Defect $for = null): Repro
    {
        $repro = Repro::of($line, $by);
        if (null !== $repro->defect_id && $repro->defect_id !== $for?->id) {
            throw DefectConflict::filedFromThere((string) $repro->defect?->key);
        }

        return $repro;
    }

    /**
     * @param  list<string>  $captures by line; those of another session, or without a file, are left out
     */
    public function link(Defect $defect, User $by, Repro $repro, array $captures): void
    {
        if ($repro->defect_id === $defect->id) {
            return;
        }
        $repro->update(['defect_id' => $defect->id]);
        $lines = SessionLine::query()->where('session_id', $repro->session_id)->whereKey($captures)->whereNotNull('sha256');
        foreach ($lines->orderBy('done_at')->limit(AttachFile::MOST)->get() as $line) {
            $file = DefectFile::query()->create([
                'project_id' => $defect->project_id,
                'defect_id' => $defect->id,
                'comment_id' => null,
                'sha256' => $line->sha256,
                'name' => $line->name,
                'added_by_id' => $by->id,
                'created_at' => Carbon::now(),
            ]);
            $this->tracker->attached($defect, $by, $file);
        }
        ($this->announce)($defect->project_id, 'session', $repro->session_id);
        ($this->announce)($defect->project_id, 'defect', $defect->id);
    }
}
