<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Actions;

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Setup\Queries\ReadAxes;
use LucidStep\App\Models\Configuration;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Problems\Conflict;
use LucidStep\App\Support\Problems\InUse;
use LucidStep\App\Support\Revisions\Seen;
use LucidStep\Core\Planning\Axis;
use LucidStep\Core\Planning\ValuePair;

/**
 * Axes with their values, pairs of values that cannot meet, and the configurations made of them.
 */
final readonly class SaveAxes
{
    public function __construct(private PublishChange $announce, private ReadAxes $axes) {}

    /**
     * Replaces the axes. A value that a configuration holds stays, and is named with what holds it.
     *
     * @param  list<array{id?: ?string, name: string, values: list<array{id?: ?string, name: string}>}>  $axes
     * @param  list<array{axis: string, value: string, other_axis: string, other_value: string}>  $forbidden by name
     *
     * @param  ?string  $seen the state that the person saw ({@see Seen})
     * @param  list<string>  $former ids of axes and values that come back
     *
     * @throws Conflict            when a value in use would go
     * @throws ValidationException by field
     */
    public function write(Project $project, array $axes, array $forbidden, ?string $seen, array $former = []): void
    {
        if ([] !== $axes || [] !== $forbidden) {
            ReadAxes::combinations($axes, $forbidden);
        }
        DB::table('projects')->where('id', $project->id)->lockForUpdate()->first();
        Seen::check($seen, $this->axes->stored($project), 'the axes');
        $known = DB::table('axis_values')
            ->join('axes', 'axes.id', '=', 'axis_values.axis_id')
            ->where('axes.project_id', $project->id)
            ->get(['axis_values.id', 'axis_values.name', 'axes.id as axis_id', 'axes.name as axis']);
        $keptValues = array_merge([], ...array_map(static fn(array $a): array => array_filter(array_column($a['values'], 'id')), $axes));
        $gone = $known->whereNotIn('id', $keptValues);
        $held = DB::table('configuration_values')
            ->join('configurations', 'configurations.id', '=', 'configuration_id')
            ->whereIn('value_id', $gone->pluck('id'))
            ->orderBy('configurations.name')
            ->get(['value_id', 'configurations.name']);
        if ($held->isNotEmpty()) {
            $by = $gone->keyBy('id');
            throw InUse::because(
                $held
                    ->groupBy('value_id')
                    ->map(
                        static fn($names, string $id): string => \sprintf(
                            '“%s” is used by %s.',
                            $by[$id]->name,
                            $names->pluck('name')->take(3)->implode(', ') .
                                ($names->count() > 3 ? ' and ' . ($names->count() - 3) . ' more' : ''),
                        ),
                    )
                    ->implode(' ') . ' Remove those configurations first.',
            );
        }
        // Before their values: the log names them by those.
        DB::table('forbidden_pairs')->whereIn('value_id', $known->pluck('id'))->delete();
        DB::table('axis_values')->whereIn('id', $gone->pluck('id'))->delete();
        DB::table('axes')
            ->where('project_id', $project->id)
            ->whereNotIn('id', array_filter(array_column($axes, 'id')))
            ->delete();
        // Names may change places: they are set aside first.
        DB::update('update axes set name = id::text where project_id = ?', [$project->id]);
        DB::update('update axis_values set name = id::text where axis_id in (select id from axes where project_id = ?)', [$project->id]);
        $is = static fn(?string $id, string $column): string => null !== $id &&
        ($known->contains($column, $id) || \in_array($id, $former, true))
            ? $id
            : (string) Str::uuid7();
        $ids = $rows = $values = [];
        foreach ($axes as $at => $axis) {
            $id = $is($axis['id'] ?? null, 'axis_id');
            $rows[] = ['id' => $id, 'project_id' => $project->id, 'name' => trim($axis['name']), 'position' => $at];
            foreach ($axis['values'] as $place => $value) {
                $valueId = $is($value['id'] ?? null, 'id');
                $ids[trim($axis['name'])][trim($value['name'])] = $valueId;
                $values[] = ['id' => $valueId, 'axis_id' => $id, 'name' => trim($value['name']), 'position' => $place];
            }
        }
        DB::table('axes')->upsert($rows, ['id'], ['name', 'position']);
        DB::table('axis_values')->upsert($values, ['id'], ['axis_id', 'name', 'position']);
        $pairs = array_map(
            static fn(array $p): array => [
                'value_id' => $ids[trim($p['axis'])][trim($p['value'])],
                'other_id' => $ids[trim($p['other_axis'])][trim($p['other_value'])],
            ],
            $forbidden,
        );
        DB::table('forbidden_pairs')->insertOrIgnore($pairs);
        $this->rename($project);
        ($this->announce)($project->id, 'setup', $project->id);
    }

    /**
     * What axes would give, stored ones or not: how many by all and by pairs, and what the present configurations leave untested.
     *
     * @param  list<array{name: string, values: list<array{name: string}>}>  $axes
     * @param  list<array{axis: string, value: string, other_axis: string, other_value: string}>  $forbidden
     *
     * @return array{all: int, all_more: bool, pairs: list<array<string, string>>, impossible: list<string>, untested: list<string>}
     */
    public function check(Project $project, array $axes, array $forbidden): array
    {
        $combinations = ReadAxes::combinations($axes, $forbidden);
        $all = $combinations->count(GenerateConfigurations::MOST);
        $pairs = $combinations->pairs();
        $have = array_values(
            array_map(static fn(array $c): array => array_column($c['values'], 'name', 'axis'), $this->axes->configurations($project)),
        );

        return [
            'all' => min($all, GenerateConfigurations::MOST),
            'all_more' => $all > GenerateConfigurations::MOST,
            'pairs' => $pairs->configurations,
            'impossible' => array_map(static fn(ValuePair $p): string => $p->label(), \array_slice($pairs->impossible, 0, 200)),
            'untested' => array_map(static fn(ValuePair $p): string => $p->label(), $combinations->untested($have)),
        ];
    }

    /**
     * Configurations that are called after their values go by the new names of those.
     */
    private function rename(Project $project): void
    {
        $all = $this->axes->configurations($project);
        $taken = array_flip(array_column($all, 'name'));
        foreach ($all as $configuration) {
            $name = implode(', ', array_column($configuration['values'], 'name'));
            if ($configuration['named_by_values'] && '' !== $name && !isset($taken[$name])) {
                Configuration::query()
                    ->whereKey($configuration['id'])
                    ->update(['name' => $name]);
                $taken[$name] = true;
            }
        }
    }
}
