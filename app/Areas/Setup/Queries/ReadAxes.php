<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Queries;

use Illuminate\Support\Facades\DB;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Models\Configuration;
use LucidStep\App\Models\Project;
use LucidStep\Core\Planning\Axis;
use LucidStep\Core\Planning\BadAxes;
use LucidStep\Core\Planning\Combinations;
use LucidStep\Core\Planning\ValuePair;

/**
 * Reads the axes of a project, and the configurations made of them.
 */
final class ReadAxes
{
    /**
     * @return array{list<array{id: string, name: string, values: list<array{id: string, name: string}>}>,
     *     list<array{axis: string, value: string, other_axis: string, other_value: string}>}
     */
    public function stored(Project $project): array
    {
        $values = DB::table('axis_values')
            ->join('axes', 'axes.id', '=', 'axis_values.axis_id')
            ->where('axes.project_id', $project->id)
            ->orderBy('axis_values.position')
            ->get(['axis_values.id', 'axis_values.name', 'axes.id as axis_id', 'axes.name as axis']);
        $by = $values->keyBy('id');
        $axes = DB::table('axes')
            ->where('project_id', $project->id)
            ->orderBy('position')
            ->get(['id', 'name'])
            ->map(
                static fn(object $a): array => [
                    'id' => $a->id,
                    'name' => $a->name,
                    'values' => array_values(
                        $values->where('axis_id', $a->id)->map(static fn(object $v): array => ['id' => $v->id, 'name' => $v->name])->all(),
                    ),
                ],
            )
            ->all();
        $forbidden = DB::table('forbidden_pairs')
            ->whereIn('value_id', $by->keys())
            ->orderBy('value_id')
            ->orderBy('other_id')
            ->get()
            ->map(
                static fn(object $p): array => [
                    'axis' => $by[$p->value_id]->axis,
                    'value' => $by[$p->value_id]->name,
                    'other_axis' => $by[$p->other_id]->axis,
                    'other_value' => $by[$p->other_id]->name,
                ],
            )
            ->all();

        return [array_values($axes), array_values($forbidden)];
    }

    /**
     * @return list<array{id: string, name: string, named_by_values: bool, entries: int, values: list<array{axis: string, name: string}>}>
     */
    public function configurations(Project $project): array
    {
        $values = DB::table('configuration_values')
            ->join('axis_values', 'axis_values.id', '=', 'value_id')
            ->join('axes', 'axes.id', '=', 'axis_id')
            ->where('axes.project_id', $project->id)
            ->orderBy('axes.position')
            ->get(['configuration_id', 'axes.name as axis', 'axis_values.name'])
            ->groupBy('configuration_id');
        $used = DB::table('entries')
            ->where('project_id', $project->id)
            ->groupBy('configuration_id')
            ->pluck(DB::raw('count(*) as n'), 'configuration_id');

        return array_values(
            Configuration::query()
                ->where('project_id', $project->id)
                ->orderBy('position')
                ->get()
                ->map(
                    static fn(Configuration $c): array => [
                        'id' => $c->id,
                        'name' => $c->name,
                        'named_by_values' => $c->named_by_values,
                        'entries' => (int) ($used[$c->id] ?? 0),
                        'values' => array_values(
                            ($values[$c->id] ?? collect())
                                ->map(static fn(object $v): array => ['axis' => $v->axis, 'name' => $v->name])
                                ->all(),
                        ),
                    ],
                )
                ->all(),
        );
    }

    /**
     * @param  list<array{name: string, values: list<array{name: string}>}>  $axes
     * @param  list<array{axis: string, value: string, other_axis: string, other_value: string}>  $forbidden
     */
    public static function combinations(array $axes, array $forbidden): Combinations
    {
        try {
            return new Combinations(
                array_map(
                    static fn(array $a): Axis => new Axis(
                        trim($a['name']),
                        array_map(static fn(array $v): string => trim($v['name']), $a['values']),
                    ),
                    $axes,
                ),
                array_map(
                    static fn(array $p): ValuePair => new ValuePair(
                        trim($p['axis']),
                        trim($p['value']),
                        trim($p['other_axis']),
                        trim($p['other_value']),
                    ),
                    $forbidden,
                ),
            );
        } catch (BadAxes $e) {
            throw ValidationException::withMessages(['axes' => $e->getMessage()]);
        }
    }
}
