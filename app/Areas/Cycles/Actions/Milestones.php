<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Cycles\Data\MilestoneLine;
use LucidStep\App\Areas\Cycles\Queries\TakenNames;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Milestone;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Data\Counts;
use LucidStep\App\Support\Problems\Conflict;
use LucidStep\App\Support\Problems\InUse;
use LucidStep\App\Support\Revisions\Seen;
use LucidStep\Core\Planning\CycleState;

/**
 * Dated goals that hold cycles.
 */
final readonly class Milestones
{
    public function __construct(private PublishChange $announce) {}

    /**
     * @return list<MilestoneLine> the one due first at the top
     */
    public function all(Project $project): array
    {
        $counts = [];
        foreach (
            DB::table('entries')
                ->join('cycles', 'cycles.id', '=', 'cycle_id')
                ->where('cycles.project_id', $project->id)
                ->whereNotNull('milestone_id')
                ->whereNot('state', CycleState::Abandoned)
                ->groupBy('milestone_id', 'display_state')
                ->get(['milestone_id', 'display_state', DB::raw('count(*) as n')])
            as $row
        ) {
            $counts[$row->milestone_id][$row->display_state] = (int) $row->n;
        }
        $cycles = DB::table('cycles')
            ->where('project_id', $project->id)
            ->groupBy('milestone_id')
            ->pluck(DB::raw('count(*) as n'), 'milestone_id');

        return array_values(
            Milestone::query()
                ->where('project_id', $project->id)
                ->orderBy('due_on')
                ->orderBy('id')
                ->get()
                ->map(static fn(Milestone $m): MilestoneLine => self::line($m, (int) ($cycles[$m->id] ?? 0), $counts[$m->id] ?? []))
                ->all(),
        );
    }

    /**
     * @param  array<string, int>  $counts
     */
    public static function line(Milestone $milestone, int $cycles = 0, array $counts = []): MilestoneLine
    {
        return new MilestoneLine(
            $milestone->id,
            $milestone->name,
            $milestone->type,
            $milestone->description,
            $milestone->due_on->toDateString(),
            $cycles,
            Counts::of($counts),
            array_sum($counts),
            Seen::of(self::asSeen($milestone)),
        );
    }

    /**
     * @return array{string, string, string, string}
     */
    private static function asSeen(Milestone $m): array
    {
        return [$m->name, $m->type, $m->description, $m->due_on->toDateString()];
    }

    /**
     * @param  array{name: string, type?: ?string, description?: ?string, due_on: string, seen?: ?string}  $fields `seen`: the
     *     state that the person saw, where it is changed ({@see Seen})
     *
     * @throws ValidationException when the name is taken, or a cycle would end after it: that is named
     */
    public function write(Project $project, array $fields, ?Milestone $milestone = null): Milestone
    {
        $name = trim($fields['name']);
        if (null !== $milestone) {
            $milestone = Milestone::query()->lockForUpdate()->findOrFail($milestone->id);
            Seen::check($fields['seen'] ?? null, self::asSeen($milestone), 'this milestone');
        }
        $taken = TakenNames::ofMilestone($project->id, $name, $milestone?->id);
        if ([] !== $taken) {
            throw ValidationException::withMessages(['name' => $taken]);
        }
        $late =
            null === $milestone
                ? null
                : Cycle::query()
                    ->where('milestone_id', $milestone->id)
                    ->whereNot('state', CycleState::Abandoned)
                    ->where('ends_on', '>', $fields['due_on'])
                    ->orderByDesc('ends_on')
                    ->first();
        if (null !== $late) {
            throw ValidationException::withMessages([
                'due_on' =>
                    "“{$late->name}” would end on {$late->ends_on->toDateString()}, after the milestone. Move that cycle " .
                    'first, or choose a later date.',
            ]);
        }
        $milestone ??= new Milestone(['project_id' => $project->id]);
        $milestone
            ->fill([
                'name' => $name,
                'type' => trim((string) ($fields['type'] ?? '')),
                'description' => trim((string) ($fields['description'] ?? '')),
                'due_on' => Carbon::parse($fields['due_on']),
            ])
            ->save();
        ($this->announce)($project->id, 'cycle', $milestone->id);

        return $milestone->refresh();
    }

    /**
     * @throws Conflict when it still holds cycles
     */
    public function remove(Milestone $milestone): void
    {
        $cycles = Cycle::query()->where('milestone_id', $milestone->id)->pluck('name');
        if ($cycles->isNotEmpty()) {
            throw InUse::stays(
                $milestone->name,
                'it holds ' . $cycles->take(3)->implode(', ') . ($cycles->count() > 3 ? ' and ' . ($cycles->count() - 3) . ' more' : ''),
            );
        }
        $milestone->delete();
        ($this->announce)($milestone->project_id, 'cycle', $milestone->id);
    }
}
