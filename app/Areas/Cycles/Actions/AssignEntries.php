<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Actions;

use Illuminate\Support\Carbon;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Cycles\Data\AssignmentPlan;
use LucidStep\App\Areas\Cycles\Data\LoadShare;
use LucidStep\App\Areas\Cycles\Queries\Estimates;
use LucidStep\App\Areas\Cycles\Queries\ReadCycle;
use LucidStep\App\Areas\Cycles\Queries\TesterLookup;
use LucidStep\App\Areas\Cycles\Queries\UndecidedEntries;
use LucidStep\App\Areas\Setup\Actions\SaveCalendar;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;
use LucidStep\Core\Planning\AssignableEntry;
use LucidStep\Core\Planning\Assignee;
use LucidStep\Core\Planning\Balance;
use LucidStep\Core\Planning\Calendar;
use LucidStep\Core\Planning\Conditions;
use LucidStep\Core\Planning\NobodyToAssign;

/**
 * Hands out what is unassigned: balanced by the time people have, or by shares.
 */
final readonly class AssignEntries
{
    /**
     * Who would get what; nothing is written.
     *
     * @param  list<string>  $people in list order
     * @param  array<string, float|int>  $shares by person; empty: balanced by capacity
     * @param  list<string>  $ids    only these entries; empty: all that are unassigned
     *
     * @throws ValidationException when nobody has time or nothing is unassigned
     */
    public function preview(Cycle $cycle, array $people, array $shares = [], array $ids = []): AssignmentPlan
    {
        $project = Project::query()->findOrFail($cycle->project_id);
        $work = self::work($cycle);
        $chosen = [] === $ids ? null : array_flip($ids);
        $open = array_values(
            array_filter($work, static fn(AssignableEntry $w): bool => null !== $w->assignee || null === $chosen || isset($chosen[$w->id])),
        );
        if ([] === array_filter($open, static fn(AssignableEntry $w): bool => null === $w->assignee)) {
            throw ValidationException::withMessages(['people' => 'Everything that is left to walk is assigned already.']);
        }
        $members = TesterLookup::of($project->id, $people, static fn(int $i): string => "people.{$i}");
        $capacity = array_map(static fn(Membership $m): int => self::capacity($project, $cycle, $m), $members);
        $workers = array_values(
            array_map(
                static fn(Membership $m): Assignee => new Assignee(
                    $m->user_id,
                    (float) ([] === $shares ? $capacity[$m->user_id] : max(0, $shares[$m->user_id] ?? 0)),
                ),
                $members,
            ),
        );
        try {
            $given = Balance::of($workers, $open, Conditions::of(ReadCycle::conditions($cycle->id)));
        } catch (NobodyToAssign $e) {
            throw ValidationException::withMessages([
                'people' => [] === $shares ? $e->getMessage() : 'Give at least one person a share above 0.',
            ]);
        }
        $seconds = $counts = $gets = [];
        foreach ($work as $one) {
            $to = $given[$one->id] ?? $one->assignee;
            if (null !== $to) {
                $seconds[$to] = ($seconds[$to] ?? 0) + $one->seconds;
                $counts[$to] = ($counts[$to] ?? 0) + 1;
                $gets[$to] = ($gets[$to] ?? 0) + (isset($given[$one->id]) ? 1 : 0);
            }
        }

        return new AssignmentPlan(
            array_values(
                array_map(
                    static fn(Membership $m): LoadShare => new LoadShare(
                        $m->user_id,
                        $m->user->name,
                        $gets[$m->user_id] ?? 0,
                        $counts[$m->user_id] ?? 0,
                        $seconds[$m->user_id] ?? 0,
                        $capacity[$m->user_id],
                    ),
                    $members,
                ),
            ),
            (object) $given,
            \count($given),
        );
    }

    /**
     * What is left of a cycle to walk, in its order: entries without a final verdict.
     *
     * @return list<AssignableEntry>
     */
    public static function work(Cycle $cycle): array
    {
        $estimates = new Estimates($cycle->project_id);

        return array_values(
            UndecidedEntries::in($cycle)
                ->join('cases', 'cases.id', '=', 'case_id')
                ->orderBy('entries.position')
                ->get([
                    'entries.id',
                    'assignee_id',
                    'rounds',
                    'walk_times',
                    'estimate_seconds',
                    'steps_count',
                    'display_state',
                    'active_ms',
                ])
                ->map(
                    static fn(object $e): AssignableEntry => new AssignableEntry(
                        $e->id,
                        self::left($e, $estimates->entry($e->walk_times, $e->estimate_seconds, $e->steps_count, $e->rounds)),
                        $e->assignee_id,
                    ),
                )
                ->all(),
        );
    }

    /**
     * What is left of an entry: of a started one at least a tenth.
     */
    public static function left(\stdClass $entry, int $seconds): int
    {
        return 'in_progress' === $entry->display_state
            ? max((int) ceil($seconds / 10), $seconds - intdiv((int) $entry->active_ms, 1000))
            : $seconds;
    }

    /**
     * Seconds that somebody has until the cycle ends, from today or its start: working days without days off.
     */
    public static function capacity(Project $project, Cycle $cycle, Membership $member): int
    {
        return self::days($project, $cycle, $member) * $member->minutes_per_day * 60;
    }

    public static function days(Project $project, Cycle $cycle, Membership $member): int
    {
        $today = Carbon::now($project->time_zone)->toDateString();

        return SaveCalendar::of($project)->days(
            max($today, $cycle->starts_on->toDateString()),
            $cycle->ends_on->toDateString(),
            $member->days_off,
        );
    }

    /**
     * The working days of some dates, and the seconds that people have in them.
     *
     * @param  list<string>  $people
     *
     * @return array{int, int}
     */
    public static function time(Project $project, string $from, string $to, array $people): array
    {
        // Longer than two years is no cycle; the count is only told.
        $to = min($to, Calendar::plus($from, 731));
        $calendar = SaveCalendar::of($project);
        $seconds = Membership::query()
            ->where('project_id', $project->id)
            ->whereIn('user_id', $people)
            ->get()
            ->sum(static fn(Membership $m): int => $calendar->days($from, $to, $m->days_off) * $m->minutes_per_day * 60);

        return [$calendar->days($from, $to), (int) $seconds];
    }
}
