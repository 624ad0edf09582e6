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
        return (int) DB::scalar('select coalesce(sum(bytes), 0) from files where sha256 in (' . self::SHOWN . ')', self::named($project));
    }

    public static function files(string $project): int
    {
        return (int) DB::scalar(
            'select count(distinct sha256) from (select sha256 from evidence where project_id = :p1 union select sha256 from defect_files ' .
                'where project_id = :p2) all_of_them where sha256 is not null and sha256 not in (select subject from removals where ' .
                "project_id = :p3 and kind = 'file')",
            array_slice(self::named($project), 0, 3),
        );
    }

    /**
     * @return array<string, string>
     */
    private static function named(string $project): array
    {
        return ['p1' => $project, 'p2' => $project, 'p3' => $project, 'p4' => $project];
    }
}
