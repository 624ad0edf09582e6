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
use LucidStep\Core\Planning\Axis;

/**
 * Makes configurations of the axes of a project.
 */
final readonly class GenerateConfigurations
{
    /** Made at once at most; more are nobody's plan. */
    public const MOST = 300;

    public function __construct(private PublishChange $announce, private ReadAxes $axes) {}

    /**
     * Makes configurations of the stored axes; those that are there already stay as they are.
     *
     * @param  'all'|'pairs'|'one'  $how
     * @param  array<string, string>  $values of one, by axis
     * @param  string  $name of one; empty: its values
     *
     * @return int how many are new
     */
    public function __invoke(Project $project, string $how, array $values = [], string $name = ''): int
    {
        [$axes, $forbidden] = $this->axes->stored($project);
        $combinations = ReadAxes::combinations($axes, $forbidden);
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
        foreach ($this->axes->configurations($project) as $configuration) {
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
            $new[] = [
                'id' => ($id = (string) Str::uuid7()),
                'project_id' => $project->id,
                'name' => $title,
                'named_by_values' => $title === implode(', ', $row),
                'position' => ++$at,
            ];
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
     * @param  array<string, string>  $values by axis
     */
    private static function fingerprint(array $values): string
    {
        ksort($values);

        return (string) json_encode($values);
    }
}
