<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\Project;
use LucidStep\Core\Planning\SetupChange;
use LucidStep\Core\Planning\SetupUndo;

/**
 * Reads what acts changed in the setup, each thing as it was before and after.
 */
final class SetupChanges
{
    /**
     * @param  list<string>  $acts
     *
     * @return array<string, list<SetupChange>> by act
     */
    public function of(Project $project, array $acts): array
    {
        $changes = [];
        foreach (
            DB::table('setup_log')
                ->where('project_id', $project->id)
                ->whereIn('act', $acts)
                ->groupBy('act', 'subject', 'key')
                ->orderByRaw('min(id)')
                ->selectRaw('act, subject, key, (array_agg(old order by id))[1] as old, (array_agg(new order by id desc))[1] as new')
                ->get()
            as $row
        ) {
            $changes[$row->act][] = new SetupChange(
                (string) $row->subject,
                (string) $row->key,
                self::decoded($row->old),
                self::decoded($row->new),
            );
        }
        foreach ($this->firstWritings($project) as $list => $act) {
            if (isset($changes[$act])) {
                $changes[$act] = self::beginning($list, $changes[$act]);
            }
        }

        return $changes;
    }

    /**
     * Everything that some acts changed, as it is now.
     *
     * @param  list<string>  $acts
     *
     * @return array<string, ?array<string, mixed>> by {@see SetupUndo::id()}; null: not there any more
     */
    public function now(Project $project, array $acts): array
    {
        $now = [];
        $rows = DB::select(
            'select distinct on (l.subject, l.key) l.subject, l.key, l.new from setup_log l join (select distinct subject, key from ' .
                'setup_log where project_id = ? and act = any(?)) s using (subject, key) where l.project_id = ? ' .
                'order by l.subject, l.key, l.id desc',
            [$project->id, '{' . implode(',', array_map(static fn(string $a): string => "\"{$a}\"", $acts)) . '}', $project->id],
        );
        foreach ($rows as $row) {
            $now["{$row->subject} {$row->key}"] = self::decoded($row->new);
        }

        return $now;
    }

    /**
     * @return array<string, string> by list the act that wrote it first, instead of what was given
     */
    private function firstWritings(Project $project): array
    {
        $acts = DB::select(
            "select distinct on (split_part(key, '/', 1)) split_part(key, '/', 1) as list, act from setup_log " .
                "where project_id = ? and subject = 'list_items' order by 1, id",
            [$project->id],
        );

        return array_column($acts, 'act', 'list');
    }

    /**
     * The first writing of a list changes what was given, of which the database has no rows.
     *
     * @param  list<SetupChange>  $changes
     *
     * @return list<SetupChange>
     */
    private static function beginning(string $list, array $changes): array
    {
        $by = [];
        foreach ($changes as $change) {
            $by["{$change->subject} {$change->key}"] = $change;
        }
        foreach (ProjectLists::given($list) as $at => $item) {
            $key = "{$list}/{$item['value']}";
            $was = ['list' => $list, 'name' => $item['name'], 'value' => $item['value'], 'weight' => $item['weight'], 'position' => $at];
            $by["list_items {$key}"] = new SetupChange('list_items', $key, $was, ($by["list_items {$key}"] ?? null)?->new);
        }

        return array_values($by);
    }

    /**
     * @return ?array<string, mixed>
     */
    private static function decoded(?string $json): ?array
    {
        $row = null === $json ? null : json_decode($json, true, 16, \JSON_THROW_ON_ERROR);

        return \is_array($row) ? array_filter($row, is_string(...), \ARRAY_FILTER_USE_KEY) : null;
    }
}
