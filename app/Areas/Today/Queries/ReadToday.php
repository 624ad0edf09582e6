<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Today\Queries;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Cycles\Data\CycleSummary;
use LucidStep\App\Areas\Cycles\Data\EntryLine;
use LucidStep\App\Areas\Cycles\Queries\EntryLines;
use LucidStep\App\Areas\Cycles\Queries\ReadBoard;
use LucidStep\App\Areas\Cycles\Queries\ReadCycle;
use LucidStep\App\Areas\Today\Data\TodayCycle;
use LucidStep\App\Areas\Today\Data\TodayPage;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Core\Planning\CycleState;
use LucidStep\Core\Verdict\Policies;

/**
 * What is mine to do now: my entries in released cycles, the cycle due first at the top.
 */
final readonly class ReadToday
{
    public function __construct(private ReadCycle $read, private EntryLines $entries, private ReadBoard $board, private ReadNews $news) {}

    public function __invoke(Project $project, User $user, Role $role): TodayPage
    {
        $policies = Policies::fromArray($project->policies);
        $cycles = $this->read->running($project);
        $counts = $this->board->counts(array_values($cycles->modelKeys()));
        $first = $this->read->next($cycles, $user, $role, $policies);
        $query = EntryLines::query()
            ->whereIn('entries.cycle_id', $cycles->modelKeys())
            ->where('assignee_id', $user->id)
            ->orderBy('entries.position');
        $mine = [];
        foreach ($this->entries->of($query, $project, $cycles) as $entry) {
            $mine[$entry->cycle_id][] = $entry;
        }
        $lines = [];
        foreach ($cycles as $cycle) {
            $entries = $mine[$cycle->id] ?? [];
            $next = $first[$cycle->id] ?? null;
            if ([] === $entries) {
                continue;
            }
            // Due is what closes first: the window of an entry that is still open, or the last day of its cycle.
            $windows = array_map(
                static fn(EntryLine $e): ?Carbon => 'done' === $e->readiness || null === $e->not_after
                    ? null
                    : Carbon::parse($e->not_after),
                $entries,
            );
            $due = collect($windows)
                ->filter(static fn(?Carbon $at): bool => null !== $at && $at->isFuture())
                ->push($cycle->ends_on->copy()->shiftTimezone($project->time_zone)->endOfDay()->utc())
                ->min();
            $lines[] = new TodayCycle(CycleSummary::from($cycle, $counts[$cycle->id] ?? []), $entries, $next, $due->toIso8601ZuluString());
        }
        usort($lines, static fn(TodayCycle $a, TodayCycle $b): int => $a->due_at <=> $b->due_at);
        $seen = Membership::query()->where('project_id', $project->id)->where('user_id', $user->id)->first()?->today_seen_at;

        // Mine first; else what can be taken in a cycle in which nothing is mine.
        $next = array_filter([
            ...array_column($lines, 'next_entry_id'),
            ...array_map(static fn(Cycle $c): ?string => $first[$c->id] ?? null, $cycles->all()),
        ]);
        $free = $role->records() ? $this->free($project) : [];

        return new TodayPage(
            $lines,
            array_values($next)[0] ?? null,
            array_sum($free),
            \count($free),
            ($this->news)($project, $user, $seen),
            $seen?->toIso8601ZuluString(),
            Carbon::now()->toIso8601ZuluString('microsecond'),
        );
    }

    /**
     * @return array<string, int> entries of running cycles that are nobody's and wait to be walked, by cycle
     */
    private function free(Project $project): array
    {
        return DB::table('entries')
            ->join('cycles', 'cycles.id', '=', 'cycle_id')
            ->where('entries.project_id', $project->id)
            ->where('cycles.state', CycleState::Released->value)
            ->whereNull('assignee_id')
            ->whereIn('display_state', ['not_run', 'retest'])
            ->groupBy('cycle_id')
            ->selectRaw('cycle_id, count(*) as n')
            ->pluck('n', 'cycle_id')
            ->map(static fn(mixed $n): int => (int) $n)
            ->all();
    }
}
