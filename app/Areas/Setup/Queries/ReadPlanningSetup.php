<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Queries;

use LucidStep\App\Areas\Setup\Data\AxisLine;
use LucidStep\App\Areas\Setup\Data\AxisValue;
use LucidStep\App\Areas\Setup\Data\BuildLine;
use LucidStep\App\Areas\Setup\Data\ConfigurationLine;
use LucidStep\App\Areas\Setup\Data\ConfigurationValue;
use LucidStep\App\Areas\Setup\Data\EnvironmentLine;
use LucidStep\App\Areas\Setup\Data\ForbiddenPair;
use LucidStep\App\Areas\Setup\Data\ListItemLine;
use LucidStep\App\Areas\Setup\Data\Planner;
use LucidStep\App\Areas\Setup\Data\PlanningSetup;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Environment;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\Release;
use LucidStep\App\Support\Data\Named;
use LucidStep\App\Support\Revisions\Seen;

/**
 * Reads what cycles are planned with.
 */
final readonly class ReadPlanningSetup
{
    public function __construct(private ReadAxes $axes) {}

    public function __invoke(Project $project, bool $mayPlan): PlanningSetup
    {
        [$axes, $forbidden] = $this->axes->stored($project);
        $environments = Environment::query()->where('project_id', $project->id)->with('build')->orderBy('position')->get();
        $lists = new ProjectLists($project);
        $line = static fn(array $i): ListItemLine => new ListItemLine($i['value'], $i['name'], $i['weight'], 0);

        return new PlanningSetup(
            array_values(
                Release::query()
                    ->where('project_id', $project->id)
                    ->orderBy('position')
                    ->get()
                    ->map(static fn(Release $r): Named => new Named($r->id, $r->name))
                    ->all(),
            ),
            array_values(
                Build::query()
                    ->where('project_id', $project->id)
                    ->orderBy('position')
                    ->get()
                    ->map(static fn(Build $b): BuildLine => new BuildLine($b->id, $b->name, $b->release_id))
                    ->all(),
            ),
            array_values($environments->map(EnvironmentLine::from(...))->all()),
            array_map(
                static fn(array $a): AxisLine => new AxisLine(
                    $a['id'],
                    $a['name'],
                    array_map(static fn(array $v): AxisValue => new AxisValue($v['id'], $v['name']), $a['values']),
                ),
                $axes,
            ),
            array_map(
                static fn(array $p): ForbiddenPair => new ForbiddenPair($p['axis'], $p['value'], $p['other_axis'], $p['other_value']),
                $forbidden,
            ),
            array_map(
                static fn(array $c): ConfigurationLine => new ConfigurationLine(
                    $c['id'],
                    $c['name'],
                    $c['entries'],
                    array_map(static fn(array $v): ConfigurationValue => new ConfigurationValue($v['axis'], $v['name']), $c['values']),
                ),
                $this->axes->configurations($project),
            ),
            $project->working_days,
            $project->holidays,
            $project->time_zone,
            array_values(
                Membership::query()
                    ->where('project_id', $project->id)
                    ->with('user')
                    ->get()
                    ->sortBy('user.name')
                    ->map(
                        static fn(Membership $m): Planner => new Planner(
                            $m->user_id,
                            $m->user->name,
                            $m->role->value,
                            $m->minutes_per_day,
                            $m->days_off,
                            Seen::of(SetupState::time($m)),
                        ),
                    )
                    ->all(),
            ),
            array_map($line, $lists->items('milestone')),
            array_map($line, $lists->items('phase')),
            $mayPlan,
            [
                'axes' => Seen::of([$axes, $forbidden]),
                'environments' => Seen::of(SetupState::environments($environments)),
                'calendar' => Seen::of(SetupState::calendar($project)),
                'milestone-types' => Seen::of($lists->items('milestone')),
                'phases' => Seen::of($lists->items('phase')),
            ],
        );
    }
}
