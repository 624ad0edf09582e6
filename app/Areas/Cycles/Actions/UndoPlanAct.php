<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Actions;

use Illuminate\Support\Carbon;
use LucidStep\App\Areas\Cycles\Data\PlanActResult;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\PlanAct;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Problems\AlreadyDone;
use LucidStep\App\Support\Problems\Conflict;
use LucidStep\Core\Planning\CycleLogKind;

/**
 * Takes an act of planning back: what was changed again since is left and named.
 */
final readonly class UndoPlanAct
{
    public function __construct(private UndoEntryChange $entries, private BulkEditCycles $cycles, private CycleLog $log) {}

    /**
     * @throws Conflict when it was undone already
     */
    public function __invoke(PlanAct $act, User $user): PlanActResult
    {
        $act = PlanAct::query()->lockForUpdate()->findOrFail($act->id);
        if (null !== $act->undone_at) {
            throw AlreadyDone::undone();
        }
        $done = null === $act->cycle_id ? $this->cycles->undo($act, $user) : ($this->entries)($act);
        $act->update(['undone_at' => Carbon::now()]);
        if (null !== $act->cycle_id) {
            ($this->log)(Cycle::query()->findOrFail($act->cycle_id), $user, CycleLogKind::Undone, $done->title);
        }

        return $done;
    }
}
