<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Actions;

use Illuminate\Database\Eloquent\Collection;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Cycles\Data\ClonedEntries;
use LucidStep\App\Areas\Cycles\Data\CloneOptions;
use LucidStep\App\Areas\Cycles\Data\ClonePreview;
use LucidStep\App\Areas\Cycles\Data\DateMove;
use LucidStep\App\Areas\Cycles\Queries\ReadCloneable;
use LucidStep\App\Areas\Cycles\Queries\TakenNames;
use LucidStep\App\Areas\Setup\Actions\SaveCalendar;
use LucidStep\App\Areas\Setup\Queries\ProjectReferences;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Milestone;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Keys\NextKey;
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
    public function __construct(private NextKey $keys, private CycleLog $log, private ReadCloneable $read) {}

    public function preview(Cycle|Milestone $what, CloneOptions $how): ClonePreview
    {
        return $this->plan($what, $how)[0];
    }

    /**
     * @return array{ClonePreview, list<array{Cycle, ClonedEntries}>, array<string, list<string>>} what it would be, what of each
     *     cycle, in the order of the moves, and the preview's faults by field
     */
    private function plan(Cycle|Milestone $what, CloneOptions $how): array
    {
        $project = Project::query()->findOrFail($what->project_id);
        $shift = $this->shift($project, $what, $how);
        $moves = $late = $notes = $cloned = [];
        foreach ($this->cycles($what) as $cycle) {
            $entries = ($this->read)($project, $cycle, $how);
            $cloned[] = [$cycle, $entries];
            $name = $this->name($what, $cycle, $how);
            [$start, $end] = $shift->dates($cycle->starts_on->toDateString(), $cycle->ends_on->toDateString());
            $moves[] = new DateMove(
                $cycle->id,
                $name,
                $cycle->starts_on->toDateString(),
                $cycle->ends_on->toDateString(),
                $start,
                $end,
                \count($entries->entries),
                $entries->windows(),
            );
            foreach ($entries->notes as $note) {
                $notes[] = $what instanceof Cycle ? $note : "“{$cycle->name}”: {$note}";
            }
            array_push($late, ...array_values(CycleDates::faults($name, $start, $end, ...$this->goal($what, $cycle, $how))));
        }
        $faults = array_filter([
            $what instanceof Milestone ? 'due_on' : 'starts_on' => array_values(array_unique($late)),
            'name' => $this->taken($what, $moves, $how),
        ]);

        return [new ClonePreview($moves, $shift->days, array_merge(...array_values($faults)), $notes), $cloned, $faults];
    }

    /**
     * @param  list<DateMove>  $moves
     * @return list<string> what to say of each name that is taken
     */
    private function taken(Cycle|Milestone $what, array $moves, CloneOptions $how): array
    {
        $made = array_filter($moves, static fn(DateMove $m): bool => self::makes($m, $how));
        $names = array_values(array_map(static fn(DateMove $m): string => $m->name, $made));

        return [
            ...$what instanceof Milestone ? TakenNames::ofMilestone($what->project_id, $how->name) : [],
            ...TakenNames::ofCycles($what->project_id, $names),
        ];
    }

    /**
     * Whether a cycle comes of it: one without any of the entries that were asked for does not.
     */
    private static function makes(DateMove $move, CloneOptions $how): bool
    {
        return $move->entries > 0 || 'all' === $how->which;
    }

    /**
     * @throws ValidationException when dates do not stand or a name is taken; the cycle is named
     * @return list<Cycle> the new cycles
     */
    public function do(Cycle|Milestone $what, User $user, CloneOptions $how): array
    {
        $project = Project::query()->findOrFail($what->project_id);
        ProjectReferences::check($project->id, $how->buildId, null);
        [$preview, $cloned, $faults] = $this->plan($what, $how);
        if ([] !== $faults) {
            throw ValidationException::withMessages($faults);
        }
        $milestone = $what instanceof Cycle ? $this->goalOf($what, $how)?->id : $this->milestone($project, $what, $how)->id;
        $shift = $this->shift($project, $what, $how);
        $made = [];
        foreach ($cloned as $at => [$cycle, $entries]) {
            $move = $preview->moves[$at];
            if (!self::makes($move, $how)) {
                continue;
            }
            $number = $this->keys->reserve($project, 'cycle');
            $copy = Cycle::query()->create([
                ...$cycle->only([
                    'project_id',
                    'description',
                    'phase',
                    'folder',
                    'priority',
                    'environment_id',
                    'conditions_hold',
                    'default_assignee_id',
                ]),
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
            $n = $this->copyEntries($entries, $copy, $shift);
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

    private function copyEntries(ClonedEntries $cloned, Cycle $to, Shift $shift): int
    {
        $ids = $rows = [];
        $move = static fn(?string $time): ?Carbon => null === $time
            ? null
            : Carbon::instance($shift->moment(new \DateTimeImmutable($time)));
        foreach ($cloned->entries as $at => $e) {
            $ids[$e->id] = (string) Str::uuid7();
            $rows[] = [
                'id' => $ids[$e->id],
                'project_id' => $e->project_id,
                'cycle_id' => $to->id,
                'case_id' => $e->case_id,
                'case_version_id' => $e->version,
                'configuration_id' => $e->configuration_id,
                'position' => $at + 1,
                'assignee_id' => $e->assignee_id,
                'not_before' => $move($e->not_before),
                'not_after' => $move($e->not_after),
                'row_ids' => null === $e->row_ids ? null : json_encode($e->row_ids, \JSON_THROW_ON_ERROR),
                'rounds' => $e->rounds,
                'created_at' => Carbon::now(),
                'updated_at' => Carbon::now(),
            ];
        }
        foreach (array_chunk($rows, 1000) as $some) {
            DB::table('entries')->insert($some);
        }
        $conditions = array_map(
            static fn(\stdClass $c): array => ['entry_id' => $ids[$c->entry_id], 'needs_id' => $ids[$c->needs_id], 'kind' => $c->kind],
            $cloned->conditions,
        );
        foreach (array_chunk($conditions, 1000) as $some) {
            DB::table('entry_conditions')->insert($some);
        }

        return \count($rows);
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
        if ($what instanceof Milestone) {
            return [$how->date, $how->name];
        }
        $milestone = $this->goalOf($cycle, $how);

        return [$milestone?->due_on->toDateString(), (string) $milestone?->name];
    }

    /**
     * The milestone that a clone of a cycle belongs to.
     */
    private function goalOf(Cycle $cycle, CloneOptions $how): ?Milestone
    {
        if ($how->keepsMilestone || null === $how->milestoneId) {
            return $how->keepsMilestone ? $cycle->milestone : null;
        }

        return Milestone::query()->where('project_id', $cycle->project_id)->find($how->milestoneId) ??
            throw ValidationException::withMessages(['milestone_id' => 'This milestone is not there any more.']);
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
