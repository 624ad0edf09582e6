<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Actions;

use Illuminate\Auth\Access\AuthorizationException;
use Illuminate\Support\Carbon;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Defects\Exceptions\DefectConflict;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\DefectChange;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\Core\Defects\DefectState;
use LucidStep\Core\Defects\Duplicates;

/**
 * Moves a defect to another state, with who and when.
 */
final readonly class ChangeDefectState
{
    public function __construct(private PublishChange $announce, private TellOfDefect $tell) {}

    /**
     * @param  bool  $mayFile whether they may file defects: then they verify, close and reopen as well
     * @param  ?string  $build for fixed: the build with the fix, by id
     * @param  ?Defect  $of   for duplicate: which one it is a duplicate of
     * @param  ?DefectState  $seen the state that the person saw; null: whatever it is
     *
     * @throws AuthorizationException when their role does not move it there
     * @throws DefectConflict         when the state cannot follow the one it is in now, or it was moved meanwhile
     * @throws ValidationException    by field, when a build, the other defect or a word is missing
     */
    public function __invoke(
        Defect $defect,
        User $user,
        DefectState $to,
        bool $mayFile,
        string $note = '',
        ?string $build = null,
        ?Defect $of = null,
        ?DefectState $seen = null,
    ): Defect {
        $defect = Defect::query()->lockForUpdate()->findOrFail($defect->id);
        $from = $defect->state;
        $note = trim($note);
        if (null !== $seen && $seen !== $from) {
            throw DefectConflict::movedMeanwhile($from);
        }
        $before = $defect->asked_in ?? DefectState::New;
        if (!\in_array($to, $from->moves($mayFile, $before), true)) {
            throw \in_array($to, $from->moves(true, $before), true) ? new AuthorizationException() : DefectConflict::noSuchMove($from, $to);
        }
        $isAnswer = DefectState::NeedsInformation === $from && $to === $before;
        if ('' === $note && $from->asksWordFor($to, $before, $this->wasFixed($defect))) {
            throw ValidationException::withMessages(['note' => 'Say why in a few words.']);
        }
        if (DefectState::Fixed === $to && !$isAnswer) {
            $defect->fixed_build_id = $this->build($defect, $build);
        } elseif (\in_array($to, [DefectState::InWork, DefectState::Reopened], true)) {
            $defect->fixed_build_id = null;
        }
        $defect->asked_in = DefectState::NeedsInformation === $to ? $from : null;
        $defect->duplicate_of_id = DefectState::Duplicate === $to ? $this->first($defect, $of) : null;
        DefectChange::query()->create([
            'defect_id' => $defect->id,
            'actor_id' => $user->id,
            'from_state' => $from,
            'to_state' => $to,
            'note' => $note,
            'created_at' => Carbon::now(),
        ]);
        $defect->state = $to;
        ++$defect->version;
        $defect->save();
        $this->tell->moved($defect, $user, $from, $note);
        ($this->announce)($defect->project_id, 'defect', $defect->id);

        return $defect;
    }

    private function wasFixed(Defect $defect): bool
    {
        return DefectChange::query()->where('defect_id', $defect->id)->where('to_state', DefectState::Fixed)->exists();
    }

    private function build(Defect $defect, ?string $build): string
    {
        if (null === $build || !Build::query()->where('project_id', $defect->project_id)->whereKey($build)->exists()) {
            throw ValidationException::withMessages(['build_id' => 'Choose the build that has the fix.']);
        }

        return $build;
    }

    /**
     * The first of the chain that it joins.
     */
    private function first(Defect $defect, ?Defect $of): string
    {
        if (null === $of || $of->project_id !== $defect->project_id) {
            throw ValidationException::withMessages(['duplicate_of' => 'Say which defect it is a duplicate of.']);
        }
        // Others of the project may join chains at the same time.
        Project::query()->lockForUpdate()->findOrFail($defect->project_id);
        /** @var array<string, string> $all */
        $all = Defect::query()
            ->where('project_id', $defect->project_id)
            ->whereNotNull('duplicate_of_id')
            ->pluck('duplicate_of_id', 'id')
            ->all();
        $chains = new Duplicates($all);
        if (!$chains->mayBe($defect->id, $of->id)) {
            throw DefectConflict::duplicateOfItself();
        }

        return $chains->first($of->id);
    }
}
