<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Queries;

use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\Cycle;

/**
 * What is left of a cycle: entries without a final verdict of their own, those that a cascade stops among them.
 */
final class UndecidedEntries
{
    /** What an entry shows as long as nothing was decided by walking it. */
    public const STATES = ['not_run', 'in_progress', 'retest'];

    public static function in(Cycle $cycle): Builder
    {
        return DB::table('entries')
            ->where('entries.cycle_id', $cycle->id)
            ->where(
                static fn(Builder $q) => $q
                    ->whereIn('entries.display_state', self::STATES)
                    ->orWhereIn('entries.id', DB::table('entry_stops')->select('entry_id')),
            );
    }
}
