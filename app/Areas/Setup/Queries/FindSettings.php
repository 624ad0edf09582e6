<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Queries;

use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Setup\Data\SettingLine;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Paging\WordFilter;

/**
 * Finds what is set in a project by words of it, in every list at once.
 */
final class FindSettings
{
    /** So many of each list. */
    private const EACH = 8;

    private const LISTS = [
        'types' => 'type',
        'priorities' => 'priority',
        'milestone-types' => 'milestone',
        'phases' => 'phase',
        'components' => 'component',
        'reasons-pass' => 'reason_pass',
        'reasons-fail' => 'reason_fail',
        'reasons-blocked' => 'reason_blocked',
        'reasons-not-applicable' => 'reason_not_applicable',
    ];

    /**
     * @return list<SettingLine>
     */
    public function __invoke(Project $project, string $words): array
    {
        $found = $this->ofLists($project, $words);
        foreach ($this->tables($project) as [$place, $query, $text]) {
            WordFilter::narrow($query, $words, "lucid_fold({$text})");
            foreach ($query->limit(self::EACH)->get() as $row) {
                $found[] = new SettingLine($place, $row->name, $row->of ?? '');
            }
        }

        return $found;
    }

    /**
     * Lists that nobody wrote yet have what was given, and no rows: what they have is handed to the database to be looked through.
     *
     * @return list<SettingLine>
     */
    private function ofLists(Project $project, string $words): array
    {
        $lists = new ProjectLists($project);
        $rows = [];
        foreach (self::LISTS as $place => $list) {
            foreach ($lists->items($list) as $item) {
                $rows[] = ['at' => \count($rows), 'place' => $place, 'name' => $item['name']];
            }
        }
        $query = DB::query()->fromRaw('jsonb_to_recordset(?::jsonb) as items (at int, name text)', [
            json_encode($rows, \JSON_THROW_ON_ERROR),
        ]);
        WordFilter::narrow($query, $words, 'lucid_fold(name)');
        $fits = array_fill_keys($query->pluck('at')->all(), true);
        $found = [];
        foreach ($rows as $row) {
            if (isset($fits[$row['at']])) {
                $found[] = new SettingLine($row['place'], $row['name'], '');
            }
        }

        return $found;
    }

    /**
     * @return iterable<array{value-of<SettingLine::PLACES>, Builder, string}> where it is set, its rows, and the text of each
     */
    private function tables(Project $project): iterable
    {
        $of = static fn(string $table): Builder => DB::table($table)->where("{$table}.project_id", $project->id);
        foreach (['fields' => 'case', 'defect-fields' => 'defect'] as $place => $subject) {
            $fields = $of('custom_fields')->where('subject', $subject)->orderBy('position')->select('name');
            yield [$place, $fields, "name || ' ' || choices::text"];
        }
        yield ['labels', $of('labels')->orderBy('name')->select('name'), 'name'];
        yield ['axes', $of('axes')->orderBy('position')->select('name'), 'name'];
        $values = $of('axes')->join('axis_values', 'axes.id', '=', 'axis_id')->orderBy('axes.position')->orderBy('axis_values.position');
        yield ['axes', $values->select('axis_values.name', 'axes.name as of'), 'axis_values.name'];
        yield ['configurations', $of('configurations')->orderBy('position')->select('name'), 'name'];
        yield ['releases', $of('releases')->orderBy('position')->select('name'), 'name'];
        $builds = $of('builds')->leftJoin('releases', 'releases.id', '=', 'release_id')->orderByDesc('builds.position');
        yield ['releases', $builds->select('builds.name', 'releases.name as of'), 'builds.name'];
        $environments = $of('environments')->orderBy('position')->select('name', 'address as of');
        yield ['environments', $environments, "name || ' ' || address || ' ' || notes"];
    }
}
