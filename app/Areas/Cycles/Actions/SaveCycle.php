<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Cycles\Exceptions\CycleConflict;
use LucidStep\App\Areas\Cycles\Queries\TakenNames;
use LucidStep\App\Areas\Cycles\Queries\TesterLookup;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Environment;
use LucidStep\App\Models\Milestone;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Keys\NextKey;
use LucidStep\App\Support\Problems\Conflict;
use LucidStep\Core\Planning\CycleDates;
use LucidStep\Core\Planning\CycleLogKind;
use LucidStep\Core\Planning\CycleState;

/**
 * Makes a cycle and changes what it is called, when it is, and who has part in it.
 */
final readonly class SaveCycle
{
    public function __construct(private NextKey $keys, private CycleLog $log, private AddEntries $add) {}

    /**
     * @param  array<string, mixed>  $fields as {@see fill()} takes them, and `picks`
     *
     * @throws ValidationException by field
     */
    public function make(Project $project, User $user, array $fields): Cycle
    {
        $number = $this->keys->reserve($project, 'cycle');
        $cycle = new Cycle([
            'project_id' => $project->id,
            'number' => $number,
            'key' => "{$project->code}-R{$number}",
            'state' => CycleState::Draft->value,
        ]);
        $this->fill($project, $cycle, $fields);
        ($this->log)($cycle, $user, CycleLogKind::Made, 'Made the cycle');
        $picks = (array) ($fields['picks'] ?? []);
        if ([] !== array_filter($picks)) {
            ($this->add)($cycle, $user, $picks);
        }

        return $cycle->refresh();
    }

    /**
     * @param  array<string, mixed>  $fields
     * @param  int  $revision the one the person saw
     *
     * @throws Conflict when somebody else changed it since
     */
    public function change(Cycle $cycle, User $user, array $fields, int $revision): Cycle
    {
        $cycle = OpenCycle::lock($cycle);
        if ($revision !== $cycle->revision) {
            $last = DB::table('cycle_log')
                ->leftJoin('users', 'users.id', '=', 'actor_id')
                ->where('cycle_id', $cycle->id)
                ->orderByDesc('cycle_log.id')
                ->first(['users.name', 'text', 'at']);
            throw CycleConflict::changedSince(
                null === $last ? null : ($last->name ?? 'the application') . ': ' . lcfirst($last->text),
                $cycle->revision,
            );
        }
        $facts = CycleLog::facts($cycle);
        $before = $cycle->only(['name', 'starts_on', 'ends_on', 'build_id', 'environment_id', 'milestone_id']);
        $this->fill(Project::query()->findOrFail($cycle->project_id), $cycle, $fields);
        $after = $cycle->only(['name', 'starts_on', 'ends_on', 'build_id', 'environment_id', 'milestone_id']);
        $changed = array_keys(
            array_filter($after, static fn(mixed $v, string $k): bool => (string) $v !== (string) $before[$k], \ARRAY_FILTER_USE_BOTH),
        );
        ($this->log)(
            $cycle,
            $user,
            CycleLogKind::Changed,
            [] === $changed
                ? 'Changed the plan'
                : 'Changed ' .
                    implode(
                        ', ',
                        array_map(
                            static fn(string $c): string => [
                                'name' => 'the name',
                                'starts_on' => 'the start',
                                'ends_on' => 'the end',
                                'build_id' => 'the build',
                                'environment_id' => 'the environment',
                                'milestone_id' => 'the milestone',
                            ][$c],
                            $changed,
                        ),
                    ),
            before: $facts,
        );

        return $cycle->refresh();
    }

    /**
     * @param  array<string, mixed>  $fields `name`, `description`, `starts_on`, `ends_on`, `build_id`, `environment_id`,
     *     `milestone_id`, `phase`, `folder`, `priority`, `conditions_hold`, `default_assignee_id`, `testers`, `watchers`; what
     *     is missing stays
     */
    private function fill(Project $project, Cycle $cycle, array $fields): void
    {
        $known = array_intersect_key(
            $fields,
            array_flip([
                'name',
                'description',
                'starts_on',
                'ends_on',
                'build_id',
                'environment_id',
                'milestone_id',
                'phase',
                'folder',
                'priority',
                'conditions_hold',
                'default_assignee_id',
            ]),
        );
        foreach (['description', 'phase', 'folder', 'priority'] as $text) {
            if (\array_key_exists($text, $known)) {
                $known[$text] = trim((string) $known[$text]);
            }
        }
        $cycle->fill($known);
        $errors = [];
        $milestone =
            null === $cycle->milestone_id ? null : Milestone::query()->where('project_id', $project->id)->find($cycle->milestone_id);
        if (null !== $cycle->milestone_id && null === $milestone) {
            $errors['milestone_id'] = 'There is no such milestone.';
        }
        if (null !== $cycle->build_id && !Build::query()->where('project_id', $project->id)->whereKey($cycle->build_id)->exists()) {
            $errors['build_id'] = 'There is no such build.';
        }
        if (
            null !== $cycle->environment_id &&
            !Environment::query()->where('project_id', $project->id)->whereKey($cycle->environment_id)->exists()
        ) {
            $errors['environment_id'] = 'There is no such environment.';
        }
        $name = trim($cycle->name);
        $errors += CycleDates::faults(
            $name,
            Carbon::parse($cycle->starts_on)->toDateString(),
            Carbon::parse($cycle->ends_on)->toDateString(),
            $milestone?->due_on->toDateString(),
            (string) $milestone?->name,
        );
        $taken = TakenNames::ofCycles($project->id, [$name], $cycle->id);
        if ([] !== $taken) {
            $errors['name'] = $taken;
        }
        $people = [];
        foreach (['testers' => 'tester', 'watchers' => 'watcher'] as $field => $part) {
            [$members, $wrong] = TesterLookup::look(
                $project->id,
                array_values((array) ($fields[$field] ?? [])),
                static fn(int $i): string => "{$field}.{$i}",
                'tester' === $part,
            );
            $errors += $wrong;
            foreach (array_keys($members) as $i => $id) {
                $people[] = ['user_id' => $id, 'part' => $part, 'position' => $i];
            }
        }
        if (isset($known['default_assignee_id'])) {
            $errors += TesterLookup::look(
                $project->id,
                [(string) $known['default_assignee_id']],
                static fn(): string => 'default_assignee_id',
            )[1];
        }
        if ([] !== $errors) {
            throw ValidationException::withMessages($errors);
        }
        $cycle->name = $name;
        $cycle->save();
        foreach (['testers' => 'tester', 'watchers' => 'watcher'] as $field => $part) {
            if (\array_key_exists($field, $fields)) {
                DB::table('cycle_people')->where('cycle_id', $cycle->id)->where('part', $part)->delete();
                DB::table('cycle_people')->insertOrIgnore(
                    array_values(
                        array_map(
                            static fn(array $p): array => [...$p, 'cycle_id' => $cycle->id],
                            array_filter($people, static fn(array $p): bool => $p['part'] === $part),
                        ),
                    ),
                );
            }
        }
    }
}
