<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\Core\Coverage\CoverageState;

/**
 * Where what cases show is read from: what the database keeps beside the record for now, and what it kept of the past for a moment of it.
 * Both say the same of the same moment.
 */
final readonly class CellSource
{
    /**
     * @param  ?list<string>  $cases ids; null: all that are linked to a requirement
     */
    public function __construct(private string $project, private CoverageLens $lens, private ?array $cases = null) {}

    /**
     * Runs a query over what it has: `ranks` (state, rank), `linked` (id: the cases that count), `rounds` (case_id, configuration_id,
     * row_id, build_id, attempt_id, finished_at, position: the build's place, state: what it shows by now), `plans` (case_id,
     * configuration_id, row_id, build_id, rank: entries without a finished attempt), `links` (requirement_id, case_id).
     *
     * @param  string  $query goes on after these, beginning with a comma or `select`
     * @param  array<string, string>  $more what it binds beside, by name
     *
     * @return list<\stdClass>
     */
    public function select(string $query, array $more = []): array
    {
        $ranks = implode(', ', array_map(static fn(CoverageState $s): string => "('{$s->value}', {$s->rank()})", CoverageState::cases()));
        [$linked, $rounds, $plans, $links] = null === $this->lens->at ? $this->now() : $this->then();
        $with = ['project' => $this->project, ...$this->lens->bindings(), ...$more];
        if (null !== $this->cases) {
            $with['cases'] = '{' . implode(',', $this->cases) . '}';
        }

        return array_values(
            DB::select(
                "with ranks(state, rank) as (values {$ranks}), linked as materialized ({$linked}), rounds as materialized ({$rounds}), " .
                    "plans as ({$plans}), links as ({$links}) {$query}",
                $with,
            ),
        );
    }

    /**
     * @return array{string, string, string, string}
     */
    private function now(): array
    {
        $which =
            null === $this->cases
                ? 'select r.case_id from case_requirements r join requirements q on q.id = r.requirement_id ' .
                    'where q.project_id = :project and q.dropped_at is null'
                : 'select unnest(cast(:cases as uuid[]))';
        $scope = $this->lens->conditions('c.build_id', 'c.configuration_id', 'c.milestone_id');
        $planned = $this->lens->conditions('y.build_id', 'e.configuration_id', 'y.milestone_id');

        return [
            "select k.id from cases k where k.binned_at is null and k.state <> 'retired' and k.id in ({$which})",
            <<<SQL
            select c.case_id, c.configuration_id, c.row_id, c.build_id, c.attempt_id, c.finished_at, b.position,
                case when e.display_state in ('retest', 'in_progress') then e.display_state else c.state end as state
            from coverage_cells c
            join linked l on l.id = c.case_id
            join entries e on e.id = c.entry_id
            left join builds b on b.id = c.build_id
            where c.project_id = :project{$scope}
            SQL
            ,
            <<<SQL
            select e.case_id, e.configuration_id, r.row_id, y.build_id, k.rank
            from entries e
            join ranks k on k.state = e.display_state
            join linked l on l.id = e.case_id
            join cycles y on y.id = e.cycle_id
            cross join lateral (
                select x.id::uuid from jsonb_array_elements_text(coalesce(nullif(e.row_ids, '[]'::jsonb), '[null]'::jsonb)) x(id)
            ) r(row_id)
            where e.project_id = :project and y.state in ('released', 'closed'){$planned}
                and not exists (select 1 from attempts a where a.entry_id = e.id and a.state = 'finished')
            SQL
            ,
            'select r.requirement_id, r.case_id from case_requirements r join linked l on l.id = r.case_id ' .
            'join requirements q on q.id = r.requirement_id where q.dropped_at is null',
        ];
    }

    /**
     * @return array{string, string, string, string}
     */
    private function then(): array
    {
        $held = self::held(...);
        $which =
            null === $this->cases
                ? 'select r.case_id from requirement_links r join requirement_places q on q.requirement_id = r.requirement_id ' .
                    "where r.project_id = :project and {$held('q')} and {$held('r', 'linked_at', 'parted_at')}"
                : 'select unnest(cast(:cases as uuid[]))';
        $scope = $this->lens->conditions('c.build_id', 'c.configuration_id', 'y.milestone_id');
        $planned = $this->lens->conditions('y.build_id', 'e.configuration_id', 'y.milestone_id');

        return [
            "select k.id from cases k where k.id in ({$which}) and not exists (select 1 from case_absences a where a.case_id = k.id " .
            "and {$held('a')})",
            <<<SQL
            select c.case_id, c.configuration_id, c.row_id, c.build_id, c.attempt_id, c.finished_at, b.position,
                case when e.state in ('retest', 'in_progress') then e.state else c.state end as state
            from round_outcomes c
            join linked l on l.id = c.case_id
            join cycles y on y.id = c.cycle_id
            left join entry_states e on e.entry_id = c.entry_id and {$held('e')}
            left join build_places b on b.build_id = c.build_id and {$held('b')}
            where c.project_id = :project and {$held('c')} and c.state <> 'skipped'{$scope}
            SQL
            ,
            <<<SQL
            select e.case_id, e.configuration_id, r.row_id, y.build_id, k.rank
            from entry_states e
            join ranks k on k.state = e.state
            join linked l on l.id = e.case_id
            join cycles y on y.id = e.cycle_id
            cross join lateral (
                select x.id::uuid from jsonb_array_elements_text(coalesce(nullif(e.row_ids, '[]'::jsonb), '[null]'::jsonb)) x(id)
            ) r(row_id)
            where e.project_id = :project and e.released and {$held('e')}{$planned}
                and not exists (select 1 from round_outcomes a where a.entry_id = e.entry_id and {$held('a')})
            SQL
            ,
            'select r.requirement_id, r.case_id from requirement_links r join linked l on l.id = r.case_id ' .
            'join requirement_places q on q.requirement_id = r.requirement_id ' .
            "where {$held('q')} and {$held('r', 'linked_at', 'parted_at')}",
        ];
    }

    /**
     * Whether a line held just before the moment that is asked of (`:at`).
     */
    public static function held(string $of, string $since = 'since', string $until = 'until'): string
    {
        return "{$of}.{$since} < :at and ({$of}.{$until} is null or {$of}.{$until} >= :at)";
    }
}
