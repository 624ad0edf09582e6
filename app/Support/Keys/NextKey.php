<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Keys;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\Project;

/**
 * Hands out the numbers of readable keys, from a counter row per project and kind.
 */
final class NextKey
{
    /**
     * Reserves numbers in a row, within the caller's transaction.
     *
     * @param  string  $kind `case`, `cycle`, `defect` or `charter`
     *
     * @return int the first of them
     */
    public function reserve(Project $project, string $kind, int $count = 1): int
    {
        $row = DB::selectOne(
            'insert into counters (project_id, kind, last) values (?, ?, ?) on conflict (project_id, kind) do update ' .
                'set last = counters.last + excluded.last returning last',
            [$project->id, $kind, $count],
        );

        return (int) $row->last - $count + 1;
    }
}
