<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Access;

use Illuminate\Database\Eloquent\Builder as Models;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Query\Builder;
use LucidStep\App\Models\Cycle;
use LucidStep\Core\Planning\CycleState;

/**
 * Cycles that are still being planned are the leads' alone.
 */
final class PlannedCycles
{
    /**
     * Leaves them out of a query of cycles for somebody who does not lead.
     *
     * @template Q of Builder|Models<covariant Model>
     *
     * @param  Q  $query
     *
     * @return Q
     */
    public static function without(Builder|Models $query, bool $leads): Builder|Models
    {
        return $leads ? $query : $query->whereNotIn('cycles.state', CycleState::planned());
    }

    /**
     * Whether something is one of them, or belongs to one. What was walked is in none: a cycle with attempts is no draft.
     */
    public static function has(Model $model): bool
    {
        $has = $model->getAttributes();
        $cycle = match (true) {
            $model instanceof Cycle => $model,
            isset($has['cycle_id']) => Cycle::query()
                ->whereKey($has['cycle_id'])
                ->first(['id', 'state']),
            default => null,
        };

        return true === $cycle?->state->isPlanned();
    }
}
