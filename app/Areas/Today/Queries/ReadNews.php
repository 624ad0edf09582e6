<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Today\Queries;

use Illuminate\Database\Query\Builder;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Cycles\Queries\ReadPlan;
use LucidStep\App\Areas\Cycles\Queries\UndecidedEntries;
use LucidStep\App\Areas\Today\Data\NewsLine;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Data\Person;
use LucidStep\App\Support\Time\UtcTime;

/**
 * What changed of a person's entries since they looked last. It stays until they say that they have seen it.
 */
final class ReadNews
{
    /** At most so many lines; the newest count. */
    public const MOST = 30;

    /**
     * @return list<NewsLine> the newest first; none before they ever looked
     */
    public function __invoke(Project $project, User $user, ?Carbon $seen): array
    {
        if (null === $seen) {
            return [];
        }
        // Bound as text: as a moment it would lose its parts of a second.
        $since = $seen->format('Y-m-d H:i:s.uP');
        $mine = static fn() => DB::table('entries')
            ->join('cases', 'cases.id', '=', 'entries.case_id')
            ->join('cycles', 'cycles.id', '=', 'entries.cycle_id')
            ->where('entries.project_id', $project->id)
            ->where('cycles.state', 'released')
            ->where('entries.assignee_id', $user->id)
            ->select('entries.id', 'cases.key', 'cases.title')
            ->limit(self::MOST);
        $lines = [];
        $rows = $mine()
            ->leftJoin('users', 'users.id', '=', 'handover_by_id')
            ->where('assigned_at', '>', $since)
            ->where(
                static fn($q) => $q
                    ->whereNull('last_attempt_id')
                    ->orWhereIn('last_attempt_id', DB::table('attempts')->where('tester_id', '<>', $user->id)->select('id')),
            )
            ->addSelect('assigned_at as at', 'handover_note', 'users.id as by_id', 'users.name as by_name')
            ->orderByDesc('at')
            ->get();
        foreach ($rows as $row) {
            $lines[] = self::line(
                $row,
                'assigned',
                '' === $row->handover_note ? 'Assigned to you' : "Assigned to you: {$row->handover_note}",
            );
        }
        $rows = $mine()
            ->leftJoin('users', 'users.id', '=', 'retest_by_id')
            ->where('display_state', 'retest')
            ->where('retest_asked_at', '>', $since)
            ->addSelect('retest_asked_at as at', 'retest_reason', 'users.id as by_id', 'users.name as by_name')
            ->orderByDesc('at')
            ->get();
        foreach ($rows as $row) {
            $lines[] = self::line($row, 'retest', "A retest is asked: {$row->retest_reason}");
        }
        $rows = $mine()
            ->join('attempts', 'attempts.id', '=', 'last_attempt_id')
            ->join('users', 'users.id', '=', 'attempts.tester_id')
            ->where('attempts.tester_id', '<>', $user->id)
            ->where('attempts.finished_at', '>', $since)
            ->whereNotNull('attempts.verdict')
            ->addSelect('attempts.finished_at as at', 'attempts.verdict', 'users.id as by_id', 'users.name as by_name')
            ->orderByDesc('at')
            ->get();
        foreach ($rows as $row) {
            $lines[] = self::line($row, 'judged', 'Judged ' . str_replace('_', ' ', $row->verdict) . ' by another');
        }
        $rows = $mine()
            ->where('display_state', 'not_run')
            ->whereColumn('case_version_id', '<>', 'cases.version_id')
            ->where('cases.updated_at', '>', $since)
            ->addSelect('cases.updated_at as at')
            ->orderByDesc('at')
            ->get();
        foreach ($rows as $row) {
            $lines[] = self::line($row, 'changed', 'Its case was changed after it was planned');
        }
        $rows = $mine()
            ->join('entry_conditions', 'entry_conditions.entry_id', '=', 'entries.id')
            ->join('entries as needed', 'needed.id', '=', 'needs_id')
            ->join('cases as of', 'of.id', '=', 'needed.case_id')
            ->whereIn('entries.display_state', ['not_run', 'retest'])
            ->where('needed.display_state_at', '>', $since)
            ->whereIn('needed.display_state', ['pass', 'fail', 'blocked', 'not_applicable'])
            ->addSelect('needed.display_state_at as at', 'of.key as needs', 'needed.display_state as came')
            ->orderByDesc('at')
            ->get();
        foreach ($rows as $row) {
            $lines[] = self::line($row, 'freed', "{$row->needs}, which it waits for, shows " . str_replace('_', ' ', $row->came));
        }
        array_push($lines, ...$this->ofCycles($project, $user, $since));
        usort($lines, static fn(NewsLine $a, NewsLine $b): int => [$b->at, $a->key] <=> [$a->at, $b->key]);

        return \array_slice($lines, 0, self::MOST);
    }

    /**
     * Other days or another build of a cycle in which something of mine is still to be walked: from what it was to what it is,
     * however often it was changed between.
     *
     * @return list<NewsLine>
     */
    private function ofCycles(Project $project, User $user, string $since): array
    {
        $rows = DB::table('cycle_log')
            ->join('cycles', 'cycles.id', '=', 'cycle_log.cycle_id')
            ->leftJoin('users', 'users.id', '=', 'actor_id')
            ->where('cycles.project_id', $project->id)
            ->where('cycles.state', 'released')
            ->whereNotNull('changes')
            ->where('at', '>', $since)
            ->whereRaw('actor_id is distinct from ?', [$user->id])
            ->whereExists(
                static fn(Builder $q) => $q
                    ->from('entries')
                    ->whereColumn('entries.cycle_id', 'cycles.id')
                    ->where('assignee_id', $user->id)
                    ->whereIn('display_state', UndecidedEntries::STATES),
            )
            ->orderBy('cycle_log.id')
            ->limit(500)
            ->get(['cycles.id', 'cycles.key', 'cycles.name', 'changes', 'at', 'users.id as by_id', 'users.name as by_name']);
        $lines = [];
        foreach ($rows->groupBy('id') as $of) {
            $from = $to = [];
            foreach ($of as $row) {
                foreach (ReadPlan::changes($row->changes) as $change) {
                    $from[$change->field] ??= $change->from;
                    $to[$change->field] = $change->to;
                }
            }
            $said = array_filter(
                array_map(
                    static fn(string $field): string => $from[$field] === $to[$field]
                        ? ''
                        : self::changed($field, $from[$field], $to[$field]),
                    array_keys($to),
                ),
            );
            $last = $of->last();
            if ([] !== $said && null !== $last) {
                $lines[] = new NewsLine(
                    "cycle-{$last->id}-{$last->at}",
                    null,
                    $last->key,
                    $last->name,
                    'cycle',
                    implode(' ', $said),
                    null === $last->by_id ? null : new Person($last->by_id, (string) $last->by_name),
                    (string) UtcTime::time($last->at),
                );
            }
        }

        return $lines;
    }

    private static function changed(string $field, string $from, string $to): string
    {
        $day = static fn(string $on): string => Carbon::parse($on)->format('j M');

        return match (true) {
            'ends_on' === $field => "It ends on {$day($to)}, not {$day($from)}.",
            'starts_on' === $field => "It starts on {$day($to)}, not {$day($from)}.",
            '' === $to => "It has no build any more; it was {$from}.",
            '' === $from => "It is walked on build {$to}.",
            default => "It is walked on build {$to}, not {$from}.",
        };
    }

    private static function line(\stdClass $row, string $kind, string $text): NewsLine
    {
        return new NewsLine(
            "{$kind}-{$row->id}-{$row->at}",
            $row->id,
            $row->key,
            $row->title,
            $kind,
            $text,
            isset($row->by_id) ? new Person($row->by_id, (string) $row->by_name) : null,
            (string) UtcTime::time($row->at),
        );
    }
}
