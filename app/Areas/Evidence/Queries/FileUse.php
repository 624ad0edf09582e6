<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Evidence\Queries;

use Illuminate\Support\Facades\DB;

/**
 * Where stored files are shown. A test sees to it that no table which refers to files is missing here.
 */
final class FileUse
{
    /** Tables that show files, each with a project, and the columns that name them. */
    public const PLACES = [
        'evidence' => ['sha256', 'marked_sha256'],
        'project_files' => ['sha256'],
        'defect_files' => ['sha256'],
        'session_lines' => ['sha256'],
    ];

    /**
     * @return list<string> SHA-256 of everything that a project shows, each once
     */
    public static function of(string $project): array
    {
        $hashes = [];
        foreach (self::columns() as [$table, $column]) {
            $hashes[] = DB::table($table)->where('project_id', $project)->whereNotNull($column)->distinct()->pluck($column)->all();
        }

        return array_values(array_unique(array_map(strval(...), array_merge(...$hashes))));
    }

    /**
     * @param  list<string>  $hashes
     * @param  ?string  $besides a project that does not count
     *
     * @return list<string> those of them that nothing shows
     */
    public static function unused(array $hashes, ?string $besides = null): array
    {
        foreach (self::columns() as [$table, $column]) {
            $used = DB::table($table)->whereIn($column, $hashes);
            if (null !== $besides) {
                $used->where('project_id', '<>', $besides);
            }
            $hashes = array_diff($hashes, $used->distinct()->pluck($column)->all());
        }

        return array_values($hashes);
    }

    /**
     * @return list<array{string, string}> table and column
     */
    private static function columns(): array
    {
        $all = [];
        foreach (self::PLACES as $table => $columns) {
            foreach ($columns as $column) {
                $all[] = [$table, $column];
            }
        }

        return $all;
    }
}
