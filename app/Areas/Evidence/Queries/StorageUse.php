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
     * Bytes of all its files, each content once; what was removed does not count.
     */
    public static function bytes(string $project): int
    {
        return (int) DB::scalar(
            'select coalesce(sum(bytes), 0) from files where sha256 in (select sha256 from evidence where project_id ' .
                '= ? and sha256 is not null union select marked_sha256 from evidence where project_id = ? and ' .
                'marked_sha256 is not null) and sha256 not in (select subject from removals where project_id = ? and ' .
                "kind = 'file')",
            [$project, $project, $project],
        );
    }

    public static function files(string $project): int
    {
        return (int) DB::scalar(
            'select count(distinct sha256) from evidence where project_id = ? and sha256 is not null and sha256 not ' .
                "in (select subject from removals where project_id = ? and kind = 'file')",
            [$project, $project],
        );
    }
}
