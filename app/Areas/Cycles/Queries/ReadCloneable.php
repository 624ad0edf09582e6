<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Casebook\Queries\TextChecks;
use LucidStep\App\Areas\Cycles\Data\ClonedEntries;
use LucidStep\App\Areas\Cycles\Data\CloneOptions;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;
use LucidStep\Core\Casebook\Review;
use LucidStep\Core\Planning\NotPlannable;
use LucidStep\Core\Verdict\Policies;

/**
 * Which entries of a cycle can be walked once more as the project is today, and with what: the same that picking them anew asks.
 */
final readonly class ReadCloneable
{
    /** Which entries a clone takes. */
    public const WHICH = [
        'all' => null,
        'failed' => ['fail'],
        'failed_blocked' => ['fail', 'blocked', 'retest'],
        'not_run' => ['not_run', 'in_progress'],
        'open' => ['fail', 'blocked', 'retest', 'not_run', 'in_progress'],
    ];

    public function __construct(private TextChecks $checks) {}

    public function __invoke(Project $project, Cycle $cycle, CloneOptions $how): ClonedEntries
    {
        $approvedOnly = Policies::fromArray($project->policies)->onlyApprovedCases;
        $which = self::WHICH[$how->which] ?? null;
        $found = DB::table('entries')
            ->join('cases', 'cases.id', '=', 'case_id')
            ->where('cycle_id', $cycle->id)
            ->when(null !== $which, static fn($q) => $q->whereIn('display_state', $which ?? []))
            ->orderBy('entries.position')
            ->get([
                'entries.*',
                'cases.version_id',
                'cases.approved_version_id',
                'cases.table_id',
                'cases.state',
                'cases.binned_at',
                'cases.is_template',
                'cases.steps_count',
            ]);
        foreach ($found as $entry) {
            $entry->version = Review::walked($entry->version_id, $entry->approved_version_id, $approvedOnly);
        }
        $errors = $this->checks->errors($project->id, array_values($found->pluck('version')->filter()->unique()->all()));
        $rows = DB::table('data_rows')
            ->whereIn('table_id', $found->pluck('table_id')->filter()->unique())
            ->orderBy('position')
            ->get(['id', 'table_id'])
            ->groupBy('table_id')
            ->map(static fn($some): array => $some->pluck('id')->all());
        $entries = $left = [];
        $fewer = 0;
        foreach ($found as $entry) {
            $had = null === $entry->row_ids ? null : (array) json_decode($entry->row_ids, true);
            $there = $rows[$entry->table_id ?? ''] ?? [];
            $entry->row_ids = null === $entry->table_id ? null : array_values(null === $had ? $there : array_intersect($there, $had));
            $why =
                NotPlannable::asItIs(
                    $entry->state,
                    null !== $entry->binned_at,
                    (bool) $entry->is_template,
                    $entry->steps_count,
                    $approvedOnly,
                    null !== $entry->approved_version_id,
                ) ??
                NotPlannable::asWalked(
                    $errors[$entry->version] ?? [],
                    $entry->steps_count,
                    null === $entry->row_ids ? null : \count($entry->row_ids),
                    \count($there),
                );
            if (null !== $why) {
                $left[$why[1]] = 1 + ($left[$why[1]] ?? 0);

                continue;
            }
            $fewer += null !== $had && \count($had) > \count($entry->row_ids ?? []) ? 1 : 0;
            $entry->rounds = max(1, \count($entry->row_ids ?? []));
            $entries[] = $entry;
        }
        [$conditions, $dropped] = $this->conditions($cycle, array_column($entries, 'id'));

        return new ClonedEntries($entries, $conditions, [
            ...array_map(static fn(string $why, int $n): string => self::entries($n) . " left out: {$why}.", array_keys($left), $left),
            ...0 === $fewer ? [] : [self::entries($fewer) . ' walked with fewer data rows: some are not there any more.'],
            ...$this->assignees($project, $cycle, $how, $entries),
            ...0 === $dropped
                ? []
                : [1 === $dropped ? 'A condition falls away with its entry.' : "{$dropped} conditions fall away with their entries."],
        ]);
    }

    /**
     * Gives entries to whom they were assigned to, as far as they still record in the project.
     *
     * @param  list<\stdClass>  $entries
     *
     * @return list<string> whose entries go to nobody or the default instead
     */
    private function assignees(Project $project, Cycle $cycle, CloneOptions $how, array $entries): array
    {
        $members = Membership::query()
            ->where('project_id', $project->id)
            ->get()
            ->filter(static fn(Membership $m): bool => $m->role->records())
            ->pluck('user_id')
            ->flip();
        $gone = [];
        foreach ($entries as $entry) {
            if (!$how->samePeople) {
                $entry->assignee_id = $cycle->default_assignee_id;
            } elseif (null !== $entry->assignee_id && !isset($members[$entry->assignee_id])) {
                $gone[$entry->assignee_id] = 1 + ($gone[$entry->assignee_id] ?? 0);
                $entry->assignee_id = $cycle->default_assignee_id;
            }
            if (!isset($members[$entry->assignee_id ?? ''])) {
                $entry->assignee_id = null;
            }
        }
        $names = DB::table('users')->whereIn('id', array_keys($gone))->pluck('name', 'id');

        return array_values(
            array_map(
                static fn(string $id, int $n): string => "{$names[$id]} does not record here any more: " .
                    self::entries($n) .
                    ' assigned anew.',
                array_keys($gone),
                $gone,
            ),
        );
    }

    /**
     * @param  list<string>  $kept
     *
     * @return array{list<\stdClass>, int} those among the entries, and how many fall away
     */
    private function conditions(Cycle $cycle, array $kept): array
    {
        $in = array_flip($kept);
        $all = DB::table('entry_conditions')
            ->join('entries', 'entries.id', '=', 'entry_id')
            ->where('cycle_id', $cycle->id)
            ->get(['entry_id', 'needs_id', 'kind'])
            ->filter(static fn(\stdClass $c): bool => isset($in[$c->entry_id]));
        $both = $all->filter(static fn(\stdClass $c): bool => isset($in[$c->needs_id]));

        return [array_values($both->all()), $all->count() - $both->count()];
    }

    private static function entries(int $n): string
    {
        return 1 === $n ? '1 entry is' : number_format($n) . ' entries are';
    }
}
