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
        return new ProjectSetup(
            $this->items($project, $lists, 'type', 'cases', 'type'),
            $this->items($project, $lists, 'priority', 'cases', 'priority'),
            $this->labels($project),
            $this->customFields($project, $lists, 'case'),
            $this->items($project, $lists, 'milestone', 'milestones', 'type'),
            $this->items($project, $lists, 'phase', 'cycles', 'phase'),
            $this->items($project, $lists, 'component', 'defects', 'component'),
            $this->customFields($project, $lists, 'defect'),
            $mayWrite,
            [
                'types' => Seen::of($lists->items('type')),
                'priorities' => Seen::of($lists->items('priority')),
                'milestone-types' => Seen::of($lists->items('milestone')),
                'phases' => Seen::of($lists->items('phase')),
                'fields' => Seen::of($lists->fieldsAsSeen()),
                'components' => Seen::of($lists->items('component')),
                'defect-fields' => Seen::of($lists->fieldsAsSeen('defect')),
            ],
        );
    }

    /**
     * @param  'case'|'defect'  $subject
     *
     * @return list<CustomFieldLine>
     */
    private function customFields(Project $project, ProjectLists $lists, string $subject): array
    {
        $filled = $this->fields($project, $subject);

        return array_values(
            array_map(
                static fn(CustomField $f): CustomFieldLine => new CustomFieldLine(
                    $f->id,
                    $f->name,
                    $f->kind,
                    $f->choices,
                    $f->required,
                    $filled[$f->id] ?? 0,
                ),
                $lists->fields($subject),
            ),
        );
    }

    /**
     * How many cases or defects have a value of each custom field.
     *
     * @param  'case'|'defect'  $subject
     *
     * @return array<string, int> by id of the field
     */
    public function fields(Project $project, string $subject = 'case'): array
    {
        $table = 'case' === $subject ? 'cases' : 'defects';
        $rows = DB::select("select k as id, count(*) as n from {$table}, jsonb_object_keys(custom) k where project_id = ? group by k", [
            $project->id,
        ]);

        return array_column(array_map(static fn(\stdClass $r): array => [$r->id, (int) $r->n], $rows), 1, 0);
    }

    /**
     * @return list<LabelLine> with how many cases and defects have each
     */
    public function labels(Project $project): array
    {
        $counts = static fn(string $from): array => array_column(
            array_map(
                static fn(\stdClass $u): array => [$u->label, (int) $u->n],
                DB::select(
                    "select l.label, count(*) as n from {$from}, jsonb_array_elements_text(labels) l(label) " .
                        'where project_id = ? group by 1',
                    [$project->id],
                ),
            ),
            1,
            0,
        );
        [$cases, $defects] = [$counts('(select * from cases where binned_at is null) c'), $counts('defects')];

        return array_values(
            DB::table('labels')
                ->where('project_id', $project->id)
                ->orderByRaw('lower(name)')
                ->pluck('name')
                ->map(static fn(string $n): LabelLine => new LabelLine($n, $cases[$n] ?? 0, $defects[$n] ?? 0))
                ->all(),
        );
    }

    /**
     * @param  'type'|'priority'|'milestone'|'phase'|'component'  $list
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
