<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Actions;

use LucidStep\App\Areas\Cycles\Exceptions\CycleConflict;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Support\Problems\Conflict;

/**
 * A cycle that may still be changed.
 */
final class OpenCycle
{
    /**
     * Locks it until the transaction ends.
     *
     * @throws Conflict when nothing may change in it any more
     */
    public static function lock(Cycle $cycle): Cycle
    {
        $cycle = Cycle::query()->lockForUpdate()->findOrFail($cycle->id);
        if (!$cycle->state->isOpen()) {
            throw CycleConflict::closed($cycle);
        }

        return $cycle;
    }
}
