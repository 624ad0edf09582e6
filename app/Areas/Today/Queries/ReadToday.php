<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Today\Queries;

use Illuminate\Support\Carbon;
use LucidStep\App\Areas\Cycles\Data\CycleSummary;
use LucidStep\App\Areas\Cycles\Data\EntryLine;
use LucidStep\App\Areas\Cycles\Queries\Estimates;
use LucidStep\App\Areas\Cycles\Queries\ReadBoard;
use LucidStep\App\Areas\Cycles\Queries\ReadCycle;
use LucidStep\App\Areas\Today\Data\TodayCycle;
use LucidStep\App\Areas\Today\Data\TodayPage;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\Role;
use LucidStep\App\Models\User;
use LucidStep\Core\Planning\CycleState;
use LucidStep\Core\Verdict\Policies;

/**
 * What is mine to do now: my entries in released cycles, the cycle due first at the top.
 */
final readonly class ReadToday
{
    public function __construct(private ReadCycle $read, private ReadBoard $board, private ReadNews $news) {}

    public function __invoke(Project $project, User $user, Role $role): TodayPage
    {
        $policies = Policies::fromArray($project->policies);
        $cycles = Cycle::query()
            ->where('project_id', $project->id)
            ->where('state', CycleState::Released)
            ->with('build')
            ->orderBy('ends_on')
            ->orderBy('id')
            ->get();
        $views = $this->read->views($cycles);
        $counts = $this->board->counts(array_values($cycles->modelKeys()));
        $mine = Entry::query()
            ->whereIn('cycle_id', $cycles->modelKeys())
            ->where('assignee_id', $user->id)
            ->with(ReadBoard::WITH)
            ->orderBy('position')
            ->get()
            ->groupBy('cycle_id');
        $lines = [];
        $estimates = new Estimates($project->id);
        foreach ($cycles as $cycle) {
            $view = $views[$cycle->id];
            $first = ReadCycle::next($view, $user, $role, $policies);
            $entries = $mine[$cycle->id] ?? null;
            if (null === $first && null === $entries) {
                continue;
            }
            $open = ($entries ?? collect())->filter(static fn(Entry $e): bool => 'done' !== $view->readiness($e->id)->is);
            // Due is what closes first: the window of an entry that is still open, or the last day of its cycle.
            $due = $open
                ->map(static fn(Entry $e): ?Carbon => $e->not_after)
                ->filter(static fn(?Carbon $at): bool => null !== $at && $at->isFuture())
                ->push($cycle->ends_on->copy()->shiftTimezone($project->time_zone)->endOfDay()->utc())
                ->min();
            $lines[] = new TodayCycle(
                CycleSummary::from($cycle, $counts[$cycle->id] ?? []),
                array_values(
                    ($entries ?? collect())
                        ->map(
                            static fn(Entry $e): EntryLine => EntryLine::from(
                                $e,
                                $view->readiness($e->id),
                                $policies->onlyApprovedCases,
                                $estimates,
                            ),
                        )
                        ->all(),
                ),
                $first,
                $due->toIso8601ZuluString(),
            );
        }
        usort($lines, static fn(TodayCycle $a, TodayCycle $b): int => $a->due_at <=> $b->due_at);
        $seen = Membership::query()->where('project_id', $project->id)->where('user_id', $user->id)->first()?->today_seen_at;

        return new TodayPage(
            $lines,
            array_values(array_filter(array_map(static fn(TodayCycle $c): ?string => $c->next_entry_id, $lines)))[0] ?? null,
            ($this->news)($project, $user, $seen),
            $seen?->toIso8601ZuluString(),
            Carbon::now()->toIso8601ZuluString('microsecond'),
        );
    }
}
