<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Actions;

use Illuminate\Auth\Access\AuthorizationException;
use Illuminate\Database\Eloquent\ModelNotFoundException;
use Illuminate\Support\Facades\DB;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Setup\Data\EnvironmentInput;
use LucidStep\App\Areas\Setup\Exceptions\CannotUndo;
use LucidStep\App\Areas\Setup\Queries\ProjectLists;
use LucidStep\App\Areas\Setup\Queries\ReadAxes;
use LucidStep\App\Areas\Setup\Queries\SetupChanges;
use LucidStep\App\Areas\Setup\Queries\SetupState;
use LucidStep\App\Areas\Setup\Queries\SetupWords;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Configuration;
use LucidStep\App\Models\Environment;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\Release;
use LucidStep\App\Support\Revisions\Seen;
use LucidStep\Core\Access\Permission;
use LucidStep\Core\Planning\SetupChange;
use LucidStep\Core\Planning\SetupUndo;

/**
 * Lets what an act changed in the setup be as it was, through the same actions that change it: with all they refuse, and with a
 * line of its own in the log.
 *
 * @phpstan-import-type ListName from ProjectLists
 */
final readonly class UndoSetupAct
{
    public function __construct(
        private SetupChanges $changes,
        private SetupWords $words,
        private SaveLists $lists,
        private SaveAxes $axes,
        private ReadAxes $readAxes,
        private SaveEnvironments $environments,
        private SaveReleases $releases,
        private SaveCalendar $calendar,
        private SavePolicies $policies,
        private SaveStorageLimits $storage,
        private ChangeConfiguration $configurations,
    ) {}

    /**
     * @param  int  $line of the log, by which the act is known
     * @param  bool  $mayAdminister what an admin alone may change, an admin alone takes back
     *
     * @throws CannotUndo where it is taken back elsewhere, was changed since, or cannot be any more
     */
    public function __invoke(Project $project, int $line, bool $mayAdminister): void
    {
        $project = Project::query()->lockForUpdate()->findOrFail($project->id);
        $act =
            (string) (DB::table('setup_log')->where('project_id', $project->id)->where('id', $line)->value('act') ??
                throw new ModelNotFoundException());
        $undo = new SetupUndo($this->changes->of($project, [$act])[$act] ?? []);
        if (Permission::Administer === $undo->needs() && !$mayAdminister) {
            throw new AuthorizationException();
        }
        // What was taken out of the log does not come back from it.
        if ($undo->isElsewhere() || [] !== $this->words->removedFrom($project, [$act])) {
            throw CannotUndo::elsewhere();
        }
        if ($undo->isOvertaken($this->changes->now($project, [$act]))) {
            throw CannotUndo::overtaken();
        }
        try {
            $this->lists($project, $undo);
            $this->fields($project, $undo);
            $this->releases($project, $undo);
            $this->environments($project, $undo);
            $this->axes($project, $undo);
            $this->project($project, $undo);
            $this->time($project, $undo);
        } catch (ValidationException $e) {
            throw CannotUndo::because(implode(' ', $e->validator->errors()->all()));
        }
    }

    private function lists(Project $project, SetupUndo $undo): void
    {
        $lists = new ProjectLists($project);
        /** @var list<ListName> $changed */
        $changed = array_values(
            array_unique(array_map(static fn(SetupChange $c): string => (string) strtok($c->key, '/'), $undo->of('list_items'))),
        );
        foreach ($changed as $list) {
            $now = [];
            foreach ($lists->items($list) as $at => $item) {
                $now["{$list}/{$item['value']}"] = [...$item, 'position' => $at];
            }
            $was = array_filter(
                $undo->rows('list_items', $now),
                static fn(string $key): bool => str_starts_with($key, "{$list}/"),
                \ARRAY_FILTER_USE_KEY,
            );
            $items = array_values(
                array_map(
                    static fn(array $r): array => [
                        'value' => (string) $r['value'],
                        'name' => (string) $r['name'],
                        'weight' => (int) $r['weight'],
                    ],
                    $was,
                ),
            );
            $this->lists->items($project, $list, $items, Seen::of($lists->items($list)), array_column($items, 'value'));
        }
    }

    private function fields(Project $project, SetupUndo $undo): void
    {
        if ([] === $undo->of('custom_fields')) {
            return;
        }
        $now = $seen = [];
        $lists = new ProjectLists($project);
        foreach (['case', 'defect'] as $subject) {
            $seen[$subject] = $lists->fieldsAsSeen($subject);
            foreach ($seen[$subject] as [$id, $name, $kind, $choices, $required]) {
                $now[$id] = ['name' => $name, 'kind' => $kind, 'choices' => $choices, 'required' => $required, 'subject' => $subject];
            }
        }
        $fields = ['case' => [], 'defect' => []];
        foreach ($undo->rows('custom_fields', $now) as $id => $r) {
            // What was written down before there were fields of defects does not say of what they were.
            $fields['defect' === ($r['subject'] ?? '') ? 'defect' : 'case'][] = [
                'id' => (string) $id,
                'name' => (string) $r['name'],
                'kind' => (string) $r['kind'],
                'choices' => array_values((array) $r['choices']),
                'required' => (bool) $r['required'],
            ];
        }
        foreach ($fields as $subject => $of) {
            $this->lists->fields($project, $of, Seen::of($seen[$subject]), $undo->keys('custom_fields'), $subject);
        }
    }

    private function releases(Project $project, SetupUndo $undo): void
    {
        foreach ($undo->of('builds') as $change) {
            $build = Build::query()->where('project_id', $project->id)->find($change->key);
            if (null === $change->old) {
                $this->releases->removeBuild($build ?? throw CannotUndo::overtaken());
            } else {
                $release = $change->old['release_id'] ?? null;
                $release = null === $release ? null : (string) $release;
                $this->releases->build($project, (string) $change->old['name'], $release, $build, $change->key);
            }
        }
        foreach ($undo->of('releases') as $change) {
            $release = Release::query()->where('project_id', $project->id)->find($change->key);
            if (null === $change->old) {
                $this->releases->removeRelease($release ?? throw CannotUndo::overtaken());
            } else {
                $this->releases->release($project, (string) $change->old['name'], $release, $change->key);
            }
        }
    }

    private function environments(Project $project, SetupUndo $undo): void
    {
        if ([] === $undo->of('environments')) {
            return;
        }
        $known = Environment::query()->where('project_id', $project->id)->orderBy('position')->get()->keyBy('id');
        $now = $known
            ->map(
                static fn(Environment $e): array => [
                    'name' => $e->name,
                    'address' => $e->address,
                    'build_id' => $e->build_id,
                    'notes' => $e->notes,
                    'observed' => $e->observed,
                ],
            )
            ->all();
        $was = [];
        foreach ($undo->rows('environments', $now) as $id => $r) {
            $was[] = new EnvironmentInput(
                (string) $id,
                (string) $r['name'],
                (string) $r['address'],
                null === $r['build_id'] ? null : (string) $r['build_id'],
                (string) $r['notes'],
                (bool) ($r['observed'] ?? false),
            );
        }
        ($this->environments)($project, $was, Seen::of(SetupState::environments($known)), $undo->keys('environments'));
    }

    /**
     * Axes with their values and pairs, and configurations where they changed by themselves.
     */
    private function axes(Project $project, SetupUndo $undo): void
    {
        if ([] === [...$undo->of('axes'), ...$undo->of('axis_values'), ...$undo->of('forbidden_pairs')]) {
            foreach ($undo->of('configurations') as $change) {
                $one = Configuration::query()->where('project_id', $project->id)->find($change->key) ?? throw CannotUndo::overtaken();
                null === $change->old
                    ? $this->configurations->remove($one)
                    : $this->configurations->rename($one, (string) $change->old['name']);
            }

            return;
        }
        $stored = $this->readAxes->stored($project);
        $axes = $values = $pairs = [];
        foreach ($stored[0] as $axis) {
            $axes[$axis['id']] = ['name' => $axis['name']];
            foreach ($axis['values'] as $value) {
                $values[$value['id']] = ['name' => $value['name'], 'axis_id' => $axis['id']];
            }
        }
        foreach (DB::table('forbidden_pairs')->whereIn('value_id', array_keys($values))->get() as $pair) {
            $pairs["{$pair->value_id}/{$pair->other_id}"] = [];
        }
        $axes = $undo->rows('axes', $axes);
        $values = $undo->rows('axis_values', $values);
        $of = static fn(string $axis): array => array_filter($values, static fn(array $v): bool => $v['axis_id'] === $axis);
        $input = [];
        foreach ($axes as $id => $axis) {
            $id = (string) $id;
            $line = static fn(array $v, int|string $value): array => ['id' => (string) $value, 'name' => (string) $v['name']];
            $input[] = [
                'id' => $id,
                'name' => (string) $axis['name'],
                'values' => array_map($line, $of($id), array_keys($of($id))),
            ];
        }
        $forbidden = [];
        foreach (array_keys($undo->rows('forbidden_pairs', $pairs)) as $pair) {
            [$one, $other] = array_map(static fn(string $id): ?array => $values[$id] ?? null, explode('/', (string) $pair));
            // A pair of which one value is gone says nothing any more.
            if (null !== $one && null !== $other) {
                $forbidden[] = [
                    'axis' => (string) $axes[$one['axis_id']]['name'],
                    'value' => (string) $one['name'],
                    'other_axis' => (string) $axes[$other['axis_id']]['name'],
                    'other_value' => (string) $other['name'],
                ];
            }
        }
        $this->axes->write($project, $input, $forbidden, Seen::of($stored), [...$undo->keys('axes'), ...$undo->keys('axis_values')]);
    }

    private function project(Project $project, SetupUndo $undo): void
    {
        ['policies' => $policies, 'calendar' => $calendar, 'storage' => $storage] = $undo->project();
        if ([] !== $policies) {
            ($this->policies)($project, $policies);
        }
        if ([] !== $calendar) {
            [$days, $holidays, $zone] = SetupState::calendar($project);
            $this->calendar->write(
                $project,
                array_values(array_map(intval(...), (array) ($calendar['working_days'] ?? $days))),
                array_values(array_map(strval(...), (array) ($calendar['holidays'] ?? $holidays))),
                (string) ($calendar['time_zone'] ?? $zone),
                Seen::of(SetupState::calendar($project)),
            );
        }
        if ([] !== $storage) {
            $is = SetupState::storage($project);
            $was = static fn(string $column, ?int $now): ?int => \array_key_exists($column, $storage)
                ? (null === $storage[$column]
                    ? null
                    : (int) $storage[$column])
                : $now;
            ($this->storage)($project, $was('storage_limit_mb', $is[0]), $was('retention_days', $is[1]), Seen::of($is));
        }
    }

    private function time(Project $project, SetupUndo $undo): void
    {
        foreach ($undo->of('memberships') as $change) {
            $member = Membership::query()->where('project_id', $project->id)->where('user_id', $change->key)->firstOrFail();
            $this->calendar->person(
                $member,
                (int) ($change->old['minutes_per_day'] ?? $member->minutes_per_day),
                array_values(array_map(strval(...), (array) ($change->old['days_off'] ?? $member->days_off))),
                Seen::of(SetupState::time($member)),
            );
        }
    }
}
