<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Casebook\Actions\Suites;
use LucidStep\App\Areas\Casebook\Data\SuiteLine;
use LucidStep\App\Areas\Walk\Commands\CommandRegistry;
use LucidStep\App\Areas\Walk\Data\LeadQueue;
use LucidStep\App\Areas\Walk\Data\QueueItem;
use LucidStep\App\Areas\Walk\Data\RetestLine;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Data\Person;
use LucidStep\App\Support\Time\UtcTime;
use LucidStep\Core\Forecast\Duration;
use LucidStep\Core\Planning\CycleLogKind;

/**
 * Everything that waits for a lead, in one list: what is decided disappears from it by itself.
 */
final readonly class ReadQueue
{
    public function __construct(private CommandRegistry $commands, private Suites $suites, private ReadRetests $retests) {}

    public function __invoke(Project $project): LeadQueue
    {
        $items = [
            ...$this->reviews($project),
            ...$this->caseReviews($project),
            ...$this->looks($project),
            ...$this->retests($project),
            ...$this->late($project),
            ...$this->times($project),
            ...$this->conditions($project),
            ...$this->suites($project),
        ];
        usort($items, static fn(QueueItem $a, QueueItem $b): int => [$a->at ?? '9', $a->id] <=> [$b->at ?? '9', $b->id]);

        return new LeadQueue($items, (object) array_count_values(array_map(static fn(QueueItem $i): string => $i->kind, $items)));
    }

    /**
     * @return list<QueueItem> cycles to be reviewed
     */
    private function reviews(Project $project): array
    {
        return $this->items(
            DB::select(
                'select c.id, c.key, c.name, l.at, u.id as user_id, u.name as user_name, (select count(*) from entries e ' .
                    'where e.cycle_id = c.id) as n from cycles c left join lateral (select * from cycle_log l where ' .
                    'l.cycle_id = c.id and l.kind = ? order by l.id desc limit 1) l on true left join users u on u.id = ' .
                    "l.actor_id where c.project_id = ? and c.state = 'in_review'",
                [CycleLogKind::ReviewRequested->value, $project->id],
            ),
            static fn(object $r): QueueItem => new QueueItem(
                "review-{$r->id}",
                'review',
                $r->name,
                "{$r->n} entries to be reviewed before they are released",
                self::by($r),
                UtcTime::time($r->at),
                "/{$project->code}/cycles/{$r->key}/plan",
                $r->id,
                $r->name,
            ),
        );
    }

    /**
     * @return list<QueueItem>
     */
    private function caseReviews(Project $project): array
    {
        return $this->items(
            DB::select(
                'select c.id, c.key, c.title, c.updated_at as at, u.id as user_id, u.name as user_name from cases c left ' .
                    "join users u on u.id = c.owner_id where c.project_id = ? and c.state = 'in_review' and c.binned_at is " .
                    'null order by c.updated_at limit 200',
                [$project->id],
            ),
            static fn(object $r): QueueItem => new QueueItem(
                "case-{$r->id}",
                'case_review',
                "{$r->key} {$r->title}",
                'A case to be approved or returned',
                self::by($r),
                UtcTime::time($r->at),
                "/{$project->code}/casebook/{$r->key}",
                $r->id,
                null,
            ),
        );
    }

    /**
     * @return list<QueueItem> live suites that gained or lost cases since they were accepted
     */
    private function suites(Project $project): array
    {
        $changed = array_filter($this->suites->all($project), static fn(SuiteLine $s): bool => $s->gained + $s->lost > 0);

        return array_values(
            array_map(
                static fn(SuiteLine $s): QueueItem => new QueueItem(
                    "suite-{$s->id}",
                    'suite',
                    $s->name,
                    implode(' and ', [
                        ...$s->gained > 0 ? [$s->gained . (1 === $s->gained ? ' case' : ' cases') . ' more'] : [],
                        ...$s->lost > 0 ? [$s->lost . (0 === $s->gained ? (1 === $s->lost ? ' case' : ' cases') : '') . ' less'] : [],
                    ]) . ' than when it was accepted',
                    null,
                    $s->accepted_at,
                    "/{$project->code}/casebook?suite={$s->id}",
                    $s->id,
                    null,
                ),
                $changed,
            ),
        );
    }

    /**
     * @return list<QueueItem> entries handed to a lead for a look
     */
    private function looks(Project $project): array
    {
        return $this->items(
            DB::select(
                'select e.id, k.key, k.title, e.look_asked_at as at, e.look_note, u.id as user_id, u.name as user_name, ' .
                    'c.name from entries e join cases k on k.id = e.case_id join cycles c on c.id = e.cycle_id left join ' .
                    'users u on u.id = e.look_by_id where e.project_id = ? and e.look_asked_at is not null',
                [$project->id],
            ),
            static fn(object $r): QueueItem => new QueueItem(
                "look-{$r->id}",
                'look',
                "{$r->key} {$r->title}",
                $r->look_note,
                self::by($r),
                UtcTime::time($r->at),
                "/{$project->code}/entries/{$r->id}",
                $r->id,
                $r->name,
            ),
        );
    }

    /**
     * @return list<QueueItem> failed entries that can be walked again after a fix, and wait for no other
     */
    private function retests(Project $project): array
    {
        return array_values(
            array_map(
                static fn(RetestLine $r): QueueItem => new QueueItem(
                    "retest-{$r->entry_id}",
                    'retest',
                    "{$r->case_key} {$r->title}",
                    implode(', ', $r->fixed) .
                        " fixed in {$r->build}: ask for a retest?" .
                        ($r->behind ? ' The cycle tests an earlier build.' : ''),
                    null,
                    $r->at,
                    "/{$project->code}/entries/{$r->entry_id}",
                    $r->entry_id,
                    $r->cycle_name,
                ),
                array_filter($this->retests->ofProject($project), static fn(RetestLine $r): bool => [] === $r->waits_on),
            ),
        );
    }

    /**
     * @return list<QueueItem> acts that arrived too late, those of one person in one attempt together and in their order
     */
    private function late(Project $project): array
    {
        $rows = DB::select(
            'select l.id, l.attempt_id, l.kind, l.payload, l.why, l.received_at as at, k.key, k.title, e.id as ' .
                'entry_id, c.name, u.id as user_id, u.name as user_name from late_commands l join attempts a on a.id = ' .
                'l.attempt_id join entries e on e.id = a.entry_id join cases k on k.id = e.case_id join cycles c on c.id ' .
                "= e.cycle_id left join users u on u.id = l.actor_id where l.project_id = ? and l.state = 'waiting' " .
                'order by l.counter, l.device_time, l.received_at',
            [$project->id],
        );
        $groups = [];
        foreach ($rows as $row) {
            $groups["{$row->attempt_id} {$row->user_id}"][] = $row;
        }

        return array_values(
            array_map(function (array $of) use ($project): QueueItem {
                $first = $of[0];
                $lines = array_map(
                    fn(\stdClass $r): string => $this->commands
                        ->restore($r->kind, json_decode($r->payload, true, 512, \JSON_THROW_ON_ERROR))
                        ->description(),
                    $of,
                );
                $text = implode(' ', array_unique(array_column($of, 'why')));

                return new QueueItem(
                    "late-{$first->id}",
                    'late',
                    "{$first->key} {$first->title}",
                    $text,
                    self::by($first),
                    UtcTime::time($first->at),
                    "/{$project->code}/entries/{$first->entry_id}",
                    $first->id,
                    $first->name,
                    $lines,
                );
            }, $groups),
        );
    }

    /**
     * @return list<QueueItem> corrected times that no lead has seen
     */
    private function times(Project $project): array
    {
        return $this->items(
            DB::select(
                'select a.id, a.active_ms, a.corrected_ms, coalesce(a.finished_at, a.started_at) as at, k.key, k.title, ' .
                    'e.id as entry_id, c.name, u.id as user_id, u.name as user_name from attempts a join entries e on e.id = ' .
                    'a.entry_id join cases k on k.id = e.case_id join cycles c on c.id = e.cycle_id join users u on u.id = ' .
                    'a.tester_id where a.project_id = ? and a.corrected_ms is not null and a.time_seen_at is null',
                [$project->id],
            ),
            static fn(object $r): QueueItem => new QueueItem(
                "time-{$r->id}",
                'time',
                "{$r->key} {$r->title}",
                \sprintf('Measured %s, corrected to %s', Duration::rounded((int) $r->active_ms), Duration::rounded((int) $r->corrected_ms)),
                self::by($r),
                UtcTime::time($r->at),
                "/{$project->code}/entries/{$r->entry_id}",
                $r->id,
                $r->name,
            ),
        );
    }

    /**
     * @return list<QueueItem> entries that need the pass of one that is not applicable
     */
    private function conditions(Project $project): array
    {
        return $this->items(
            DB::select(
                'select e.id, k.key, k.title, nk.key as needs, n.id as needs_id, n.display_state_at as at, c.name, c.key ' .
                    'as cycle from entry_conditions x join entries e on e.id = x.entry_id join entries n on n.id = ' .
                    'x.needs_id join cases k on k.id = e.case_id join cases nk on nk.id = n.case_id join cycles c on c.id = ' .
                    "e.cycle_id where e.project_id = ? and c.state = 'released' and x.kind = 'only_if_passed' and " .
                    "n.display_state = 'not_applicable' and e.display_state in ('not_run', 'retest')",
                [$project->id],
            ),
            static fn(object $r): QueueItem => new QueueItem(
                "condition-{$r->id}-{$r->needs_id}",
                'condition',
                "{$r->key} {$r->title}",
                "Needs the pass of {$r->needs}, which is not applicable: drop the condition?",
                null,
                UtcTime::time($r->at),
                "/{$project->code}/cycles/{$r->cycle}/plan?entry={$r->id}",
                "{$r->id} {$r->needs_id}",
                $r->name,
            ),
        );
    }

    /**
     * @param  array<array-key, \stdClass>  $rows
     * @param  \Closure(\stdClass): QueueItem  $item
     *
     * @return list<QueueItem>
     */
    private function items(array $rows, \Closure $item): array
    {
        return array_values(array_map($item, $rows));
    }

    private static function by(\stdClass $row): ?Person
    {
        return null === $row->user_id ? null : new Person($row->user_id, $row->user_name);
    }
}
