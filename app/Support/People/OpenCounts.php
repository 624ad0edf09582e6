<?php

declare(strict_types=1);

namespace LucidStep\App\Support\People;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Query\Builder as Rows;

/**
 * How much of something each person has.
 */
final class OpenCounts
{
    /**
     * @param  Builder<covariant Model>|Rows  $open
     * @param  string  $column that says whose it is
     *
     * @return array<string, int> by person; who has none is left out
     */
    public static function by(Builder|Rows $open, string $column): array
    {
        $counts = $open
            ->whereNotNull($column)
            ->groupBy($column)
            ->selectRaw("{$column}, count(*) as n")
            ->pluck('n', $column);

        return array_map(intval(...), $counts->all());
    }
}
