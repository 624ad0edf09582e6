<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Queries;

use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Cycles\Data\EntryLine;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Project;
use LucidStep\Core\Casebook\Review;
use LucidStep\Core\Verdict\Policies;

/**
 * Entries as boards, plans and trails show them. Rows and not models, since there may be many; the same number of queries
 * for all.
 */
final readonly class EntryLines
{
    public const COLUMNS = [
        'entries.id',
        'entries.cycle_id',
        'entries.position',
        'entries.case_id',
        'cases.key',
        'cases.title',
        'cases.priority',
        'cases.state',
        'cases.estimate_seconds',
        'walk_times',
        'steps_count',
        'rounds',
        'not_before',
        'not_after',
        'entries.configuration_id',
        'assignee_id',
        'display_state',
        'previous_verdict',
        'retest_reason',
        'retest_by_id',
        'attempts.tester_id as walker_id',
        'open_attempt_id',
        'last_attempt_id',
        'attempts_count',
        'defects_count',
        'entries.active_ms',
        'display_state_at',
        'cases.binned_at',
        'handover_note',
        'look_asked_at',
        'look_note',
        'case_version_id',
        'cases.version_id',
        'cases.approved_version_id',
    ];

    public function __construct(private ReadCycle $read) {}

    /**
     * Entries with their case and who has them open. People and configurations are named apart: a join for each would take
     * longer to plan than to read.
     */
    public static function query(): Builder
    {
        return DB::table('entries')
            ->join('cases', 'cases.id', '=', 'entries.case_id')
            ->leftJoin('attempts', 'attempts.id', '=', 'open_attempt_id');
    }

    /**
     * The version of a case that a project's entries walk, as SQL of the joined case: the same as {@see Review::walked}.
     */
    public static function newestVersion(Project $project): string
    {
        return Policies::fromArray($project->policies)->onlyApprovedCases
            ? 'coalesce(cases.approved_version_id, cases.version_id)'
            : 'cases.version_id';
    }

    /**
     * @param  Builder  $entries of {@see query}, in the order they are wanted
     * @param  Collection<int, Cycle>  $cycles theirs, all of one project
     *
     * @return list<EntryLine>
     */
    public function of(Builder $entries, Project $project, Collection $cycles): array
    {
        return $this->lines($entries->get(self::COLUMNS)->all(), $project, $cycles);
    }

    /**
     * @param  array<array-key, \stdClass>  $rows
     * @param  Collection<int, Cycle>  $cycles
     *
     * @return list<EntryLine>
     */
    public function lines(array $rows, Project $project, Collection $cycles): array
    {
        if ([] === $rows) {
            return [];
        }
        $readiness = $this->read->readinessOf($cycles, $rows);
        $approvedOnly = Policies::fromArray($project->policies)->onlyApprovedCases;
        $estimates = new Estimates($project->id);
        $people = array_merge(...array_map(static fn(\stdClass $e): array => [$e->assignee_id, $e->retest_by_id, $e->walker_id], $rows));
        $names = self::names($people, array_map(static fn(\stdClass $e): ?string => $e->configuration_id, $rows));

        return array_values(
            array_map(
                static fn(\stdClass $e): EntryLine => EntryLine::fromRow(
                    $e,
                    $readiness->of[$e->id],
                    $readiness->needs[$e->id] ?? [],
                    $names,
                    $approvedOnly,
                    $estimates,
                ),
                $rows,
            ),
        );
    }

    /**
     * @param  array<array-key, ?string>  $people
     * @param  array<array-key, ?string>  $configurations
     *
     * @return array<string, string> names by id
     */
    private static function names(array $people, array $configurations): array
    {
        $named = static fn(string $table, array $ids): Builder => DB::table($table)
            ->whereRaw('id = any(?::uuid[])', ['{' . implode(',', array_unique(array_filter($ids))) . '}'])
            ->select('id', 'name');

        return array_map(
            strval(...),
            $named('users', $people)->unionAll($named('configurations', $configurations))->pluck('name', 'id')->all(),
        );
    }
}
