<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Defects\Exceptions\DefectConflict;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\DefectChange;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Problems\Conflict;
use LucidStep\Core\Defects\DefectState;

/**
 * Moves a defect to another state, with who and when.
 */
final readonly class ChangeDefectState
{
    public function __construct(private PublishChange $announce) {}

    /**
     * @param  ?string  $build for fixed: the build with the fix, by id
     *
     * @throws Conflict            when the state cannot follow the one it is in now
     * @throws ValidationException when a fix names no build of the project
     */
    public function __invoke(Defect $defect, User $user, DefectState $to, string $note = '', ?string $build = null): Defect
    {
        $defect = Defect::query()->lockForUpdate()->findOrFail($defect->id);
        if (!\in_array($to, $defect->state->next(), true)) {
            throw DefectConflict::noSuchMove($defect->state, $to);
        }
        if (DefectState::Fixed === $to) {
            if (null === $build || !Build::query()->where('project_id', $defect->project_id)->whereKey($build)->exists()) {
                throw ValidationException::withMessages(['build_id' => 'Choose the build that has the fix.']);
            }
            $defect->fixed_build_id = $build;
        }
        DefectChange::query()->create([
            'defect_id' => $defect->id,
            'actor_id' => $user->id,
            'from_state' => $defect->state,
            'to_state' => $to,
            'note' => trim($note),
            'created_at' => Carbon::now(),
        ]);
        $defect->state = $to;
        ++$defect->version;
        $defect->save();
        ($this->announce)($defect->project_id, 'defect', $defect->id);

        return $defect;
    }
}
