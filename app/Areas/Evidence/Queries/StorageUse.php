<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Evidence\Queries;

use Illuminate\Support\Facades\DB;

/**
 * How much evidence a project keeps.
 */
final class StorageUse
{
    /**
     * Bytes of all its files, each content once.
     */
    public static function bytes(string $project): int
    {
        return self::sum('sum(bytes)', $project);
    }

    public static function files(string $project): int
    {
        return self::sum('count(*)', $project);
    }

    /**
     * What cases show is no evidence, and what was removed does not count.
     */
    private static function sum(string $of, string $project): int
    {
        $shown = [];
        foreach (FileUse::PLACES as $table => $columns) {
            foreach ('project_files' === $table ? [] : $columns as $column) {
                $shown[] = "select {$column} from {$table} where project_id = ? and {$column} is not null";
            }
        }
        $shown = implode(' union ', $shown) . " except select subject from removals where project_id = ? and kind = 'file'";

        return (int) DB::scalar(
            "select coalesce({$of}, 0) from files where sha256 in ({$shown})",
            array_fill(0, substr_count($shown, '?'), $project),
        );
    }
}
