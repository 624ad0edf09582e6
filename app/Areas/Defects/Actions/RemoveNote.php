<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\DefectChange;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Problems\AlreadyDone;
use LucidStep\App\Support\Record\Removals;
use LucidStep\App\Support\Record\TakeOut;
use LucidStep\Core\Record\FreeText;

/**
 * Takes out what was said as a defect was moved, with everything that was told of it; that it was moved stays, and the trace.
 */
final readonly class RemoveNote
{
    public function __construct(private PublishChange $announce) {}

    /**
     * @throws AlreadyDone         when its words are out already
     * @throws ValidationException when it has none
     */
    public function __invoke(Defect $defect, DefectChange $change, User $by, string $reason): Defect
    {
        $change = DefectChange::query()->lockForUpdate()->findOrFail($change->id);
        if (FreeText::REMOVED === $change->note) {
            throw AlreadyDone::removed();
        }
        if ('' === $change->note) {
            throw ValidationException::withMessages(['note' => 'Nothing was said there.']);
        }
        $texts = [$change->note];
        $change->update(['note' => FreeText::REMOVED]);
        TakeOut::told($defect->project_id, $texts);
        TakeOut::storedAnswers([$change->actor_id], Carbon::parse($change->created_at), $texts);
        Removals::add($defect->project_id, null, 'message', $change->id, $reason, $by);
        ($this->announce)($defect->project_id, 'defect', $defect->id);

        return $defect;
    }
}
