<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Actions;

use Illuminate\Database\Eloquent\Collection;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Cycles\Data\CloneOptions;
use LucidStep\App\Areas\Cycles\Data\ClonePreview;
use LucidStep\App\Areas\Cycles\Data\DateMove;
use LucidStep\App\Areas\Setup\Actions\SaveCalendar;
use LucidStep\App\Areas\Setup\Queries\ProjectReferences;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Milestone;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Keys\NextKey;
use LucidStep\Core\Casebook\CaseState;
use LucidStep\Core\Planning\Calendar;
use LucidStep\Core\Planning\CycleDates;
use LucidStep\Core\Planning\CycleLogKind;
use LucidStep\Core\Planning\CycleState;
use LucidStep\Core\Planning\Shift;

/**
 * A cycle, or a milestone with its cycles, again: the same entries and people, all dates moved together.
 */
final readonly class CloneCycles
{
    /** Which entries a clone takes. */
    public const WHICH = [
        'all' => null,
        'failed' => ['fail'],
        'failed_blocked' => ['fail', 'blocked', 'retest'],
        'not_run' => ['not_run', 'in_progress'],
        'open' => ['fail', 'blocked', 'retest', 'not_run', 'in_progress'],
    ];

    public function __construct(private NextKey $keys, private CycleLog $log) {}

    public function preview(Cycle|Milestone $what, CloneOptions $how): ClonePreview
    {
        $project = Project::query()->findOrFail($what->project_id);
        $shift = $this->shift($project, $what, $how);
        $moves = $faults = [];
        $cycles = $this->cycles($what);
        $counts = $this->entries(array_values($cycles->modelKeys()), $how)
            ->groupBy('cycle_id')
            ->get([
                'cycle_id',
                DB::raw('count(*) as n'),
                DB::raw('count(*) filter (where not_before is not null or not_after is not null) as windows'),
            ])
            ->keyBy('cycle_id');
        foreach ($cycles as $cycle) {
            [$start, $end] = $shift->dates($cycle->starts_on->toDateString(), $cycle->ends_on->toDateString());
            $moves[] = new DateMove(
                $cycle->id,
                $this->name($what, $cycle, $how),
                $cycle->starts_on->toDateString(),
                $cycle->ends_on->toDateString(),
                $start,
                $end,
                (int) ($counts[$cycle->id]->n ?? 0),
                (int) ($counts[$cycle->id]->windows ?? 0),
            );
            array_push(
                $faults,
                ...array_values(CycleDates::faults($this->name($what, $cycle, $how), $start, $end, ...$this->goal($what, $cycle, $how))),
            );
        }

        return new ClonePreview($moves, $shift->days, array_values(array_unique($faults)));
    }

    /**
     * @throws ValidationException when dates do not stand; the cycle is named
     * @return list<Cycle> the new cycles
     */
    public function do(Cycle|Milestone $what, User $user, CloneOptions $how): array
    {
        $project = Project::query()->findOrFail($what->project_id);
        ProjectReferences::check($project->id, $how->buildId, null);
        $preview = $this->preview($what, $how);
        $field = $what instanceof Milestone ? 'due_on' : 'starts_on';
        if ([] !== $preview->faults) {
            throw ValidationException::withMessages([$field => $preview->faults]);
        }
        $milestone = $what instanceof Cycle ? $what->milestone_id : $this->milestone($project, $what, $how)->id;
        $shift = $this->shift($project, $what, $how);
        $made = [];
        foreach ($this->cycles($what) as $at => $cycle) {
            $move = $preview->moves[$at];
            if (0 === $move->entries && 'all' !== $how->which) {
                continue;
            }
            if (
                Cycle::query()
                    ->where('project_id', $project->id)
                    ->where('name', $move->name)
                    ->whereNot('state', CycleState::Abandoned)
                    ->exists()
            ) {
                throw ValidationException::withMessages(['name' => "There is a cycle called “{$move->name}”."]);
            }
            $number = $this->keys->reserve($project, 'cycle');
            $copy = Cycle::query()->create([
                ...$cycle->only(['project_id', 'description', 'phase', 'folder', 'priority', 'conditions_hold', 'default_assignee_id']),
                'number' => $number,
                'key' => "{$project->code}-R{$number}",
                'name' => $move->name,
                'state' => CycleState::Draft->value,
                'build_id' => $how->buildId ?? $cycle->build_id,
                'milestone_id' => $milestone,
                'starts_on' => $move->new_starts_on,
                'ends_on' => $move->new_ends_on,
                'cloned_from_id' => $cycle->id,
            ]);
            DB::insert(
                'insert into cycle_people (cycle_id, user_id, part, position) select ?, p.user_id, p.part, p.position ' .
                    'from cycle_people p join memberships m on m.user_id = p.user_id and m.project_id = ? where p.cycle_id = ?',
                [$copy->id, $project->id, $cycle->id],
            );
            $n = $this->copyEntries($cycle, $copy, $how, $shift);
            ($this->log)(
                $copy,
                $user,
                CycleLogKind::Made,
                \sprintf('Made again from %s: %d %s', $cycle->key, $n, 1 === $n ? 'entry' : 'entries'),
            );
            $made[] = $copy->refresh();
        }
        if ([] === $made) {
            throw ValidationException::withMessages(['which' => 'There is no such entry: nothing would be in it.']);
        }

        return $made;
    }

    private function copyEntries(Cycle $from, Cycle $to, CloneOptions $how, Shift $shift): int
    {
        $members = Membership::query()
            ->where('project_id', $from->project_id)
            ->get()
            ->filter(static fn(Membership $m): bool => $m->role->records())
            ->pluck('user_id')
            ->flip();
        $ids = $rows = [];
        $at = 0;
        foreach (
            $this->entries([$from->id], $how)
                ->orderBy('entries.position')
                ->get(['entries.*', 'cases.version_id', 'cases.table_id'])
            as $e
        ) {
            $ids[$e->id] = (string) Str::uuid7();
            $move = static fn(?string $time): ?Carbon => null === $time
                ? null
                : Carbon::instance($shift->moment(new \DateTimeImmutable($time)));
            $rows[] = [
                'id' => $ids[$e->id],
                'project_id' => $e->project_id,
                'cycle_id' => $to->id,
                'case_id' => $e->case_id,
                'case_version_id' => $e->version_id,
                'configuration_id' => $e->configuration_id,
                'position' => ++$at,
                'assignee_id' => $how->samePeople && isset($members[$e->assignee_id ?? '']) ? $e->assignee_id : $to->default_assignee_id,
                'not_before' => $move($e->not_before),
                'not_after' => $move($e->not_after),
                'row_ids' => $e->row_ids,
                'rounds' => $e->rounds,
                'created_at' => Carbon::now(),
                'updated_at' => Carbon::now(),
            ];
        }
        foreach (array_chunk($rows, 1000) as $some) {
            DB::table('entries')->insert($some);
        }
        $conditions = DB::table('entry_conditions')
            ->join('entries', 'entries.id', '=', 'entry_id')
            ->where('cycle_id', $from->id)
            ->get(['entry_id', 'needs_id', 'kind'])
            ->filter(static fn(object $c): bool => isset($ids[$c->entry_id], $ids[$c->needs_id]))
            ->map(static fn(object $c): array => ['entry_id' => $ids[$c->entry_id], 'needs_id' => $ids[$c->needs_id], 'kind' => $c->kind])
            ->values()
            ->all();
        foreach (array_chunk($conditions, 1000) as $some) {
            DB::table('entry_conditions')->insert($some);
        }

        return \count($rows);
    }

    /**
     * Entries that can be walked again: their case is neither binned nor retired.
     *
     * @param  list<string>  $cycles
     */
    private function entries(array $cycles, CloneOptions $how): \Illuminate\Database\Query\Builder
    {
        $which = self::WHICH[$how->which] ?? null;

        return DB::table('entries')
            ->join('cases', 'cases.id', '=', 'case_id')
            ->whereIn('cycle_id', $cycles)
            ->whereNull('cases.binned_at')
            ->where('cases.state', '<>', CaseState::Retired)
            ->when(null !== $which, static fn($q) => $q->whereIn('display_state', $which ?? []));
    }

    /**
     * @return Collection<int, Cycle>
     */
    private function cycles(Cycle|Milestone $what): Collection
    {
        return $what instanceof Cycle
            ? Collection::make([$what])
            : $what->cycles()->whereNot('state', CycleState::Abandoned)->with('milestone')->get();
    }

    private function shift(Project $project, Cycle|Milestone $what, CloneOptions $how): Shift
    {
        $days =
            $what instanceof Milestone
                ? Calendar::between($what->due_on->toDateString(), $how->date)
                : Calendar::between($what->starts_on->toDateString(), $how->date);

        return new Shift($days, SaveCalendar::of($project), $project->time_zone, $how->avoidsDaysOff);
    }

    private function name(Cycle|Milestone $what, Cycle $cycle, CloneOptions $how): string
    {
        return $what instanceof Cycle ? $how->name : $this->renamed($what, $cycle, $how);
    }

    /**
     * A cycle called after its milestone is called after the new one; else the new name stands behind it.
     */
    private function renamed(Milestone $milestone, Cycle $cycle, CloneOptions $how): string
    {
        $new = $how->name;

        return str_contains($cycle->name, $milestone->name) ? str_replace($milestone->name, $new, $cycle->name) : "{$cycle->name}, {$new}";
    }

    /**
     * @return array{?string, string} the date that cycles must end by, and whose it is
     */
    private function goal(Cycle|Milestone $what, Cycle $cycle, CloneOptions $how): array
    {
        return $what instanceof Milestone
            ? [$how->date, $how->name]
            : [$cycle->milestone?->due_on->toDateString(), (string) $cycle->milestone?->name];
    }

    private function milestone(Project $project, Milestone $from, CloneOptions $how): Milestone
    {
        return app(Milestones::class)->write($project, [
            'name' => $how->name,
            'type' => $from->type,
            'description' => $from->description,
            'due_on' => $how->date,
        ]);
    }
}
