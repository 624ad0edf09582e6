<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Setup\Data\CustomFieldLine;
use LucidStep\App\Areas\Setup\Data\LabelLine;
use LucidStep\App\Areas\Setup\Data\ListItemLine;
use LucidStep\App\Areas\Setup\Data\ProjectSetup;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Revisions\Seen;
use LucidStep\Core\Casebook\CustomField;

/**
 * Reads the lists that a project edits, with how often each item is used.
 */
final class ReadProjectSetup
{
    public function __invoke(Project $project, bool $mayWrite): ProjectSetup
    {
        $lists = new ProjectLists($project);
        $filled = $this->fields($project);
        $fields = array_map(
            static fn(CustomField $f): CustomFieldLine => new CustomFieldLine(
                $f->id,
                $f->name,
                $f->kind,
                $f->choices,
                $f->required,
                $filled[$f->id] ?? 0,
            ),
            $lists->fields(),
        );

        return new ProjectSetup(
            $this->items($project, $lists, 'type', 'cases', 'type'),
            $this->items($project, $lists, 'priority', 'cases', 'priority'),
            $this->labels($project),
            array_values($fields),
            $this->items($project, $lists, 'milestone', 'milestones', 'type'),
            $this->items($project, $lists, 'phase', 'cycles', 'phase'),
            $mayWrite,
            [
                'types' => Seen::of($lists->items('type')),
                'priorities' => Seen::of($lists->items('priority')),
                'milestone-types' => Seen::of($lists->items('milestone')),
                'phases' => Seen::of($lists->items('phase')),
                'fields' => Seen::of($lists->fieldsAsSeen()),
            ],
        );
    }

    /**
     * How many cases have a value of each custom field.
     *
     * @return array<string, int> by id of the field
     */
    public function fields(Project $project): array
    {
        $rows = DB::select('select k as id, count(*) as n from cases, jsonb_object_keys(custom) k where project_id = ? group by k', [
            $project->id,
        ]);

        return array_column(array_map(static fn(\stdClass $r): array => [$r->id, (int) $r->n], $rows), 1, 0);
    }

    /**
     * @return list<LabelLine> with how many cases have each
     */
    public function labels(Project $project): array
    {
        $uses = DB::select(
            'select l.label, count(*) as n from cases c, jsonb_array_elements_text(c.labels) l(label) where ' .
                'c.project_id = ? and c.binned_at is null group by 1',
            [$project->id],
        );
        $counts = array_column(array_map(static fn(\stdClass $u): array => [$u->label, (int) $u->n], $uses), 1, 0);

        return array_values(
            DB::table('labels')
                ->where('project_id', $project->id)
                ->orderByRaw('lower(name)')
                ->pluck('name')
                ->map(static fn(string $n): LabelLine => new LabelLine($n, $counts[$n] ?? 0))
                ->all(),
        );
    }

    /**
     * @param  'type'|'priority'|'milestone'|'phase'  $list
     *
     * @return list<ListItemLine>
     */
    private function items(Project $project, ProjectLists $lists, string $list, string $table, string $column): array
    {
        $uses = DB::table($table)->where('project_id', $project->id)->groupBy($column)->pluck(DB::raw('count(*) as n'), $column)->all();

        return array_map(
            static fn(array $i): ListItemLine => new ListItemLine($i['value'], $i['name'], $i['weight'], (int) ($uses[$i['value']] ?? 0)),
            $lists->items($list),
        );
    }
}
