<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Queries;

use LucidStep\App\Models\Routine;
use LucidStep\Core\Data\Routine as CoreRoutine;
use LucidStep\Core\Data\Routines;

/**
 * The routines that some steps need, with those within them.
 */
final class RoutineBook
{
    /**
     * @param  list<string>  $ids
     */
    public static function with(string $project, array $ids): Routines
    {
        $all = [];
        $wanted = array_values(array_unique($ids));
        while ([] !== $wanted) {
            $found = Routine::query()
                ->where('project_id', $project)
                ->whereIn('id', $wanted)
                ->with('version.steps')
                ->get()
                ->map(static fn(Routine $r): CoreRoutine => $r->version->toCore());
            $next = [];
            foreach ($found as $routine) {
                $all[$routine->id] = $routine;
                array_push($next, ...$routine->uses());
            }
            $wanted = array_values(array_diff(array_unique($next), array_keys($all)));
        }

        return new Routines($all);
    }

    public static function all(string $project): Routines
    {
        return new Routines(
            Routine::query()
                ->where('project_id', $project)
                ->whereNull('binned_at')
                ->with('version.steps')
                ->get()
                ->map(static fn(Routine $r): CoreRoutine => $r->version->toCore()),
        );
    }
}
