<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Cycles\Data\RefusedSelection;
use LucidStep\App\Areas\Cycles\Data\SelectedCase;
use LucidStep\App\Areas\Cycles\Data\SelectionCount;
use LucidStep\App\Areas\Cycles\Exceptions\CycleConflict;
use LucidStep\App\Areas\Cycles\Jobs\RunAddition;
use LucidStep\App\Areas\Cycles\Queries\Estimates;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\EntryAddition;
use LucidStep\App\Models\JobState;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Data\Named;
use LucidStep\Core\Planning\Conditions;

/**
 * Adds entries to a cycle, behind those it has. What is there in the same configuration and rows stays as it is, with
 * all that was walked. Many are added by a job that can be stopped: then none of them stays.
 */
final readonly class AddEntries
{
    /** More are added by a job. */
    public const AT_ONCE = 3000;

    public const MOST = 50_000;

    public function __construct(private InsertEntries $insert) {}

    /**
     * How much the picks are, before anything is written, and what time there is for it.
     *
     * @param  array<string, mixed>  $picks
     * @param  array{starts_on?: ?string, ends_on?: ?string, testers?: ?list<string>}  $when
     */
    public function count(Project $project, User $user, array $picks, ?Cycle $cycle = null, array $when = []): SelectionCount
    {
        $chosen = new EntrySelection($project, $picks, $user->id);
        $there = null === $cycle ? [] : $this->insert->there($cycle);
        $estimates = new Estimates($project->id);
        $entries = $known = $seconds = 0;
        foreach ($chosen->entries() as $entry) {
            if (isset($there[InsertEntries::key($entry['case']->id, $entry['configuration'], $entry['rows'])])) {
                $known++;
            } else {
                $entries++;
                $seconds += $estimates->entry(
                    $entry['case']->walk_times,
                    $entry['case']->estimate_seconds,
                    $entry['case']->steps_count,
                    $entry['rounds'],
                );
            }
        }
        $cases = $chosen->cases();
        [$days, $capacity] = isset($when['starts_on'], $when['ends_on'])
            ? AssignEntries::time($project, $when['starts_on'], $when['ends_on'], $when['testers'] ?? [])
            : [0, 0];

        return new SelectionCount(
            \count($cases),
            $entries,
            $known,
            $seconds,
            $days,
            $capacity,
            array_map(static fn(array $r): RefusedSelection => new RefusedSelection(...$r), \array_slice($chosen->refused, 0, 200)),
            \count($chosen->refused),
            \count($chosen->usual(null === $cycle ? [] : array_values(array_unique(array_column($there, 'case'))))),
            array_map(
                static fn(\stdClass $c): SelectedCase => new SelectedCase($c->id, $c->key, $c->title, $c->table_id),
                array_values(array_filter(\array_slice($cases, 0, 2000), static fn(\stdClass $c): bool => null !== $c->table_id)),
            ),
            (object) array_map(
                static fn(array $rows): array => array_map(static fn(array $r): Named => new Named(...$r), $rows),
                $chosen->tableRows(),
            ),
        );
    }

    /**
     * @param  array<string, mixed>  $picks as {@see EntrySelection} takes them, and `usual`: with the cases' usual conditions
     */
    public function __invoke(Cycle $cycle, User $user, array $picks): EntryAddition
    {
        $cycle = OpenCycle::lock($cycle);
        if (self::isRunning($cycle)) {
            throw CycleConflict::adding();
        }
        $project = Project::query()->findOrFail($cycle->project_id);
        $count = $this->count($project, $user, $picks, $cycle);
        $there = DB::table('entries')->where('cycle_id', $cycle->id)->count();
        if (0 === $count->entries) {
            throw ValidationException::withMessages([
                'picks' => $count->there > 0 ? 'All of these are in the cycle already.' : 'Nothing that can be walked is picked.',
            ]);
        }
        if ($there + $count->entries > self::MOST) {
            throw ValidationException::withMessages([
                'picks' => \sprintf(
                    'That would be %s entries; a cycle holds at most %s. Nothing was added.',
                    number_format($there + $count->entries),
                    number_format(self::MOST),
                ),
            ]);
        }
        $addition = EntryAddition::query()
            ->create([
                'project_id' => $cycle->project_id,
                'cycle_id' => $cycle->id,
                'actor_id' => $user->id,
                'state' => JobState::Running,
                'picks' => $picks,
                'total' => $count->entries,
                'created_at' => Carbon::now(),
            ])
            ->refresh();
        if ($count->entries > self::AT_ONCE) {
            RunAddition::dispatch($addition->id)->afterCommit();

            return $addition;
        }

        return $this->insert->all($addition, $cycle, $project);
    }

    public static function isRunning(Cycle $cycle): bool
    {
        return DB::table('entry_additions')
            ->where('cycle_id', $cycle->id)
            ->whereIn('state', [JobState::Running, JobState::Stopping])
            ->exists();
    }

    /**
     * Asks a running addition to stop.
     */
    public function cancel(EntryAddition $addition): EntryAddition
    {
        if (
            1 !==
            EntryAddition::query()
                ->whereKey($addition->id)
                ->where('state', JobState::Running)
                ->update(['state' => JobState::Stopping])
        ) {
            throw CycleConflict::nothingIsAdded();
        }

        return $addition->refresh();
    }
}
