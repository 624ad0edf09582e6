<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Actions;

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Models\Configuration;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Problems\Conflict;
use LucidStep\Core\Planning\Axis;
use LucidStep\Core\Planning\BadAxes;
use LucidStep\Core\Planning\Combinations;
use LucidStep\Core\Planning\ValuePair;

/**
 * Axes with their values, pairs of values that cannot meet, and the configurations made of them.
 */
final readonly class SaveAxes
{
    /** Made at once at most; more are nobody's plan. */
    public const MOST = 300;

    public function __construct(private PublishChange $announce) {}

    /**
     * Writes the axes anew. A value that a configuration holds stays, and is named with what holds it.
     *
     * @param  list<array{id?: ?string, name: string, values: list<array{id?: ?string, name: string}>}>  $axes
     * @param  list<array{axis: string, value: string, other_axis: string, other_value: string}>  $forbidden by name
     *
     * @throws Conflict            when a value in use would go
     * @throws ValidationException by field
     */
    public function write(Project $project, array $axes, array $forbidden): void
    {
        $this->combinations($axes, $forbidden);
        DB::table('projects')->where('id', $project->id)->lockForUpdate()->first();
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
            throw new Conflict(
                'in-use',
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
        DB::table('axis_values')->whereIn('id', $gone->pluck('id'))->delete();
        DB::table('axes')
            ->where('project_id', $project->id)
            ->whereNotIn('id', array_filter(array_column($axes, 'id')))
            ->delete();
        // Names may change places: they are set aside first.
        DB::update('update axes set name = id::text where project_id = ?', [$project->id]);
        DB::update('update axis_values set name = id::text where axis_id in (select id from axes where project_id = ?)', [$project->id]);
        $ids = $rows = $values = [];
        foreach ($axes as $at => $axis) {
            $id = $known->contains('axis_id', $axis['id'] ?? '') ? (string) $axis['id'] : (string) Str::uuid7();
            $rows[] = ['id' => $id, 'project_id' => $project->id, 'name' => trim($axis['name']), 'position' => $at];
            foreach ($axis['values'] as $place => $value) {
                $valueId = $known->contains('id', $value['id'] ?? '') ? (string) $value['id'] : (string) Str::uuid7();
                $ids[trim($axis['name'])][trim($value['name'])] = $valueId;
                $values[] = ['id' => $valueId, 'axis_id' => $id, 'name' => trim($value['name']), 'position' => $place];
            }
        }
        DB::table('axes')->upsert($rows, ['id'], ['name', 'position']);
        DB::table('axis_values')->upsert($values, ['id'], ['axis_id', 'name', 'position']);
        DB::table('forbidden_pairs')
            ->whereIn(
                'value_id',
                DB::table('axis_values')
                    ->whereIn('axis_id', DB::table('axes')->where('project_id', $project->id)->select('id'))
                    ->select('id'),
            )
            ->delete();
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
        $combinations = $this->combinations($axes, $forbidden);
        $all = $combinations->count(self::MOST);
        $pairs = $combinations->pairs();
        $have = array_values(
            array_map(static fn(array $c): array => array_column($c['values'], 'name', 'axis'), $this->configurations($project)),
        );

        return [
            'all' => min($all, self::MOST),
            'all_more' => $all > self::MOST,
            'pairs' => $pairs->configurations,
            'impossible' => array_map(static fn(ValuePair $p): string => $p->label(), \array_slice($pairs->impossible, 0, 200)),
            'untested' => array_map(static fn(ValuePair $p): string => $p->label(), $combinations->untested($have)),
        ];
    }

    /**
     * Makes configurations of the stored axes; those that are there already stay as they are.
     *
     * @param  'all'|'pairs'|'one'  $how
     * @param  array<string, string>  $values of one, by axis
     * @param  string  $name of one; empty: its values
     *
     * @return int how many are new
     */
    public function make(Project $project, string $how, array $values = [], string $name = ''): int
    {
        [$axes, $forbidden] = $this->stored($project);
        $combinations = $this->combinations($axes, $forbidden);
        if ('all' === $how && $combinations->count(self::MOST) > self::MOST) {
            throw ValidationException::withMessages([
                'how' => \sprintf('All combinations would be more than %d. Take pairs, or fewer values.', self::MOST),
            ]);
        }
        $rows = match ($how) {
            'all' => $combinations->all(),
            'pairs' => $combinations->pairs()->configurations,
            'one' => [$this->one($axes, $values)],
        };
        $ids = [];
        foreach ($axes as $axis) {
            foreach ($axis['values'] as $value) {
                $ids[$axis['name']][$value['name']] = $value['id'];
            }
        }
        $have = $names = [];
        foreach ($this->configurations($project) as $configuration) {
            $have[self::fingerprint(array_column($configuration['values'], 'name', 'axis'))] = true;
            $names[$configuration['name']] = true;
        }
        $at = (int) Configuration::query()->where('project_id', $project->id)->max('position');
        $new = $held = [];
        foreach ($rows as $row) {
            if (isset($have[self::fingerprint($row)])) {
                continue;
            }
            $title = 'one' === $how && '' !== trim($name) ? trim($name) : implode(', ', $row);
            if (isset($names[$title])) {
                throw ValidationException::withMessages(['name' => "There is a configuration called “{$title}”."]);
            }
            $names[$title] = true;
            $new[] = ['id' => ($id = (string) Str::uuid7()), 'project_id' => $project->id, 'name' => $title, 'position' => ++$at];
            foreach ($row as $axis => $value) {
                $held[] = ['configuration_id' => $id, 'value_id' => $ids[$axis][$value]];
            }
        }
        DB::table('configurations')->insert($new);
        DB::table('configuration_values')->insert($held);
        $made = \count($new);
        ($this->announce)($project->id, 'setup', $project->id);

        return $made;
    }

    public function renameOne(Configuration $configuration, string $name): void
    {
        $name = trim($name);
        if (
            '' === $name ||
            Configuration::query()
                ->where('project_id', $configuration->project_id)
                ->where('name', $name)
                ->whereKeyNot($configuration->id)
                ->exists()
        ) {
            throw ValidationException::withMessages([
                'name' => '' === $name ? 'A name is needed.' : "There is a configuration called “{$name}”.",
            ]);
        }
        $configuration->update(['name' => $name]);
        ($this->announce)($configuration->project_id, 'setup', $configuration->id);
    }

    /**
     * @throws Conflict when entries use it: they are named by cycle
     */
    public function remove(Configuration $configuration): void
    {
        $cycles = DB::table('entries')
            ->join('cycles', 'cycles.id', '=', 'entries.cycle_id')
            ->where('configuration_id', $configuration->id)
            ->groupBy('cycles.name')
            ->get(['cycles.name', DB::raw('count(*) as n')]);
        if ($cycles->isNotEmpty() || DB::table('attempts')->where('configuration_id', $configuration->id)->exists()) {
            throw new Conflict(
                'in-use',
                "“{$configuration->name}” stays: it is used by " .
                    $cycles
                        ->map(
                            static fn(object $c): string => \sprintf(
                                '%d %s in %s',
                                $c->n,
                                1 === (int) $c->n ? 'entry' : 'entries',
                                $c->name,
                            ),
                        )
                        ->implode(', ') .
                    '.',
            );
        }
        $configuration->delete();
        ($this->announce)($configuration->project_id, 'setup', $configuration->id);
    }

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
     * @return list<array{id: string, name: string, entries: int, values: list<array{axis: string, name: string}>}>
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
     * Configurations called after their values go by the new names of those.
     */
    private function rename(Project $project): void
    {
        $all = $this->configurations($project);
        $taken = array_flip(array_column($all, 'name'));
        foreach ($all as $configuration) {
            $name = implode(', ', array_column($configuration['values'], 'name'));
            if (
                '' !== $name &&
                !isset($taken[$name]) &&
                substr_count($configuration['name'], ', ') === \count($configuration['values']) - 1
            ) {
                Configuration::query()
                    ->whereKey($configuration['id'])
                    ->update(['name' => $name]);
                $taken[$name] = true;
            }
        }
    }

    /**
     * @param  list<array{name: string, values: list<array{id: string, name: string}>}>  $axes
     * @param  array<string, string>  $values
     *
     * @return array<string, string>
     */
    private function one(array $axes, array $values): array
    {
        $row = [];
        foreach ($axes as $axis) {
            $value = $values[$axis['name']] ?? null;
            if (null !== $value && '' !== $value) {
                if (!\in_array($value, array_column($axis['values'], 'name'), true)) {
                    throw ValidationException::withMessages([
                        "values.{$axis['name']}" => "There is no value “{$value}” on the axis “{$axis['name']}”.",
                    ]);
                }
                $row[$axis['name']] = $value;
            }
        }

        return [] === $row ? throw ValidationException::withMessages(['values' => 'Choose at least one value.']) : $row;
    }

    /**
     * @param  list<array{name: string, values: list<array{name: string}>}>  $axes
     * @param  list<array{axis: string, value: string, other_axis: string, other_value: string}>  $forbidden
     */
    private function combinations(array $axes, array $forbidden): Combinations
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

    /**
     * @param  array<string, string>  $values by axis
     */
    private static function fingerprint(array $values): string
    {
        ksort($values);

        return (string) json_encode($values);
    }
}
