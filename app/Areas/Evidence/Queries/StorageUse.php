<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Evidence\Queries;

use Illuminate\Support\Facades\DB;

/**
 * How much evidence a project keeps.
 */
final class StorageUse
{
    /** What defects show counts as well; what was removed does not. */
    private const SHOWN =
        'select sha256 from evidence where project_id = :p1 and sha256 is not null union select marked_sha256 from evidence where ' .
        'project_id = :p2 and marked_sha256 is not null union select sha256 from defect_files where project_id = :p3 and sha256 is ' .
        "not null except select subject from removals where project_id = :p4 and kind = 'file'";

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

    private static function sum(string $of, string $project): int
    {
        $named = ['p1' => $project, 'p2' => $project, 'p3' => $project, 'p4' => $project];

        return (int) DB::scalar("select coalesce({$of}, 0) from files where sha256 in (" . self::SHOWN . ')', $named);
    }
}
