<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Secrets;

use Illuminate\Support\Facades\Crypt;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\DataRow;
use LucidStep\App\Models\DataTable;
use LucidStep\Core\Data\Mask;

/**
 * The values of secret columns that a project has or had. Those that were replaced stay hidden: an attempt may still be walked
 * with them. They are kept encrypted as one, so that looking for them costs one query and one decryption.
 */
final class ProjectSecrets
{
    /** So many values of a column are remembered; the oldest are forgotten first. */
    private const MOST = 20_000;

    /**
     * What hides the values in what people write in the project.
     *
     * @param  ?string  $hidden as they are kept, where that was read already
     */
    public static function mask(string $project, ?string $hidden = null): Mask
    {
        $values = [];
        foreach (self::kept($project, $hidden) as $columns) {
            foreach ($columns as $column) {
                array_push($values, ...$column);
            }
        }

        return new Mask($values);
    }

    /**
     * Takes in what a table holds by now. A column that is secret no longer hides nothing.
     *
     * @param  list<list<string>>  $rows in clear, in the order of the columns
     */
    public static function remember(DataTable $table, array $rows): void
    {
        // Two tables saved at once: each takes its values into what the other left.
        self::kept($table->project_id);
        $hidden = DB::table('project_secrets')->where('project_id', $table->project_id)->lockForUpdate()->value('hidden');
        $kept = self::kept($table->project_id, $hidden);
        $before = $kept[$table->id] ?? [];
        $now = [];
        foreach ($table->columns as $at => $column) {
            if ($column['secret']) {
                $name = mb_strtolower($column['name']);
                $all = array_unique([
                    ...$before[$name] ?? [],
                    ...array_filter(array_column($rows, $at), static fn(string $v): bool => '' !== $v),
                ]);
                $now[$name] = \array_slice(array_values($all), -self::MOST);
            }
        }
        if ($now !== $before) {
            DB::table('project_secrets')
                ->where('project_id', $table->project_id)
                ->update(['hidden' => self::sealed([...$kept, $table->id => $now]), 'updated_at' => now()]);
        }
    }

    /**
     * @return array<string, array<string, list<string>>> values by table and column in lower case
     */
    private static function kept(string $project, ?string $hidden = null): array
    {
        $hidden ??= DB::table('project_secrets')->where('project_id', $project)->value('hidden');

        return \is_string($hidden) ? json_decode(Crypt::decryptString($hidden), true, 16, \JSON_THROW_ON_ERROR) : self::found($project);
    }

    /**
     * What the tables hold, for a project whose values were never put together.
     *
     * @return array<string, array<string, list<string>>>
     */
    private static function found(string $project): array
    {
        $found = [];
        foreach (DataTable::query()->where('project_id', $project)->with('rows')->get() as $table) {
            foreach ($table->columns as $at => $column) {
                if ($column['secret']) {
                    $cells = $table->rows->map(static fn(DataRow $r): string => $r->clear($table->columns)[$at] ?? '');
                    $found[$table->id][mb_strtolower($column['name'])] = array_values(array_unique(array_filter($cells->all())));
                }
            }
        }
        // Whoever put them together meanwhile knows more.
        DB::table('project_secrets')->insertOrIgnore(['project_id' => $project, 'hidden' => self::sealed($found), 'updated_at' => now()]);

        return $found;
    }

    /**
     * @param  array<string, array<string, list<string>>>  $values
     */
    private static function sealed(array $values): string
    {
        return Crypt::encryptString(json_encode($values, \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE));
    }
}
