<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Defects\Data\DefectChoices;
use LucidStep\App\Areas\Setup\Data\CustomFieldLine;
use LucidStep\App\Areas\Setup\Data\ListItemLine;
use LucidStep\App\Areas\Setup\Queries\ProjectLists;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Data\Named;
use LucidStep\App\Support\Data\Person;
use LucidStep\App\Support\Filters\SavedFilters;
use LucidStep\Core\Access\Role;
use LucidStep\Core\Casebook\CustomField;

/**
 * Reads what can be chosen where defects are filed, changed and looked for.
 */
final class ReadDefectChoices
{
    public function __invoke(Project $project, User $user): DefectChoices
    {
        $lists = new ProjectLists($project);

        return new DefectChoices(
            $this->people($project),
            self::named('builds', $project, 'position', 'desc'),
            self::named('configurations', $project, 'position', 'asc'),
            array_map(
                static fn(array $i): ListItemLine => new ListItemLine($i['value'], $i['name'], $i['weight'], 0),
                $lists->items('component'),
            ),
            array_values(
                DB::table('labels')->where('project_id', $project->id)->orderByRaw('lower(name)')->pluck('name')->map(strval(...))->all(),
            ),
            array_values(
                array_map(
                    static fn(CustomField $f): CustomFieldLine => new CustomFieldLine($f->id, $f->name, $f->kind, $f->choices, false, 0),
                    $lists->fields('defect'),
                ),
            ),
            SavedFilters::of($project, $user, 'defect'),
        );
    }

    /**
     * @return list<Person> everybody of the project who may work on defects, by name
     */
    private function people(Project $project): array
    {
        return array_values(
            Membership::query()
                ->where('project_id', $project->id)
                ->where('role', '<>', Role::Reader)
                ->with('user')
                ->get()
                ->map(static fn(Membership $m): Person => Person::from($m->user))
                ->sortBy('name')
                ->all(),
        );
    }

    /**
     * @param  'asc'|'desc'  $direction
     *
     * @return list<Named>
     */
    private static function named(string $table, Project $project, string $order, string $direction): array
    {
        return array_values(
            DB::table($table)
                ->where('project_id', $project->id)
                ->orderBy($order, $direction)
                ->get(['id', 'name'])
                ->map(static fn(\stdClass $r): Named => new Named($r->id, $r->name))
                ->all(),
        );
    }
}
