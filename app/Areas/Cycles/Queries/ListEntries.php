<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Queries;

use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Areas\Cycles\Data\EntryChoice;
use LucidStep\App\Areas\Cycles\Data\EntryFilter;
use LucidStep\App\Areas\Cycles\Data\EntryLine;
use LucidStep\App\Areas\Cycles\Data\EntryPage;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Access\ProjectLookup;
use LucidStep\App\Support\Paging\WindowOrder;
use LucidStep\App\Support\Paging\WordFilter;
use LucidStep\Core\Verdict\Policies;

/**
 * Lists entries of a cycle by windows, narrowed and in a chosen order.
 */
final readonly class ListEntries
{
    public const PAGE = 60;

    /** At most so many are told at once where a caller asks for more than a window. */
    public const MOST = 500;

    /** Beside the entries of a person, so many of nobody's are told for their trail, after where they are and from the start. */
    private const FREE = 50;

    /** What each order goes by, before the place in the cycle; nothing in it is null. */
    public const SORTS = [
        'position' => [],
        'title' => ['cases.folded' => 'text'],
        'shows' => [
            "array_position(array['fail', 'blocked', 'retest', 'in_progress', 'not_run', 'not_applicable', 'pass'], display_state)" =>
                'bigint',
        ],
        'who' => ['(assignee_id is null)::int' => 'bigint', "lower(coalesce(assignee.name, ''))" => 'text'],
        'time' => ['-entries.active_ms' => 'bigint'],
        'defects' => ['-defects_count' => 'bigint'],
    ];

    public function __construct(private EntryLines $lines, private ReadCycle $read) {}

    /**
     * @param  string  $sort of {@see SORTS}, with "-" before it backwards; anything else: the order of the cycle
     * @param  string  $after where the window before ended
     * @param  int  $size at most {@see MOST}
     */
    public function __invoke(Cycle $cycle, EntryFilter $filter, string $sort = '', string $after = '', int $size = self::PAGE): EntryPage
    {
        $project = ProjectLookup::find($cycle->project_id);
        $cycles = Collection::make([$cycle]);
        $query = $this->narrowed($cycle, $project, $filter);
        // Without a filter nothing has to be joined to count; with one, what is found is counted while it is found.
        $all = new EntryFilter() == $filter;
        $counted = !$all && '' === $after;
        $total = match (true) {
            $all => DB::table('entries')->where('cycle_id', $cycle->id)->count(),
            $counted => 0,
            default => $query->clone()->count(),
        };
        $back = str_starts_with($sort, '-');
        if ('who' === ltrim($sort, '-')) {
            $query->leftJoin('users as assignee', 'assignee.id', '=', 'assignee_id');
        }
        $order = new WindowOrder([...self::SORTS[ltrim($sort, '-')] ?? [], 'entries.position' => 'bigint'], $back);
        $order->apply($query, $after);
        $size = max(1, min(self::MOST, $size));
        // What is to be ordered is narrow; everything else is read of the few that come out of it.
        $window = $query
            ->addSelect('entries.id')
            ->when($counted, static fn(Builder $q) => $q->selectRaw('count(*) over () as found'))
            ->limit($size + 1)
            ->get();
        if ($window->isEmpty()) {
            return new EntryPage([], $total, null);
        }
        $total = $counted ? $window[0]->found : $total;
        $read = EntryLines::query()
            ->whereRaw('entries.id = any(?::uuid[])', ['{' . $window->implode('id', ',') . '}'])
            ->get(EntryLines::COLUMNS)
            ->keyBy('id');
        $rows = $window->map(static fn(\stdClass $w): \stdClass => (object) [...(array) $read[$w->id], ...(array) $w])->all();
        $more = \count($rows) > $size;
        $rows = \array_slice($rows, 0, $size);
        $last = $rows[\count($rows) - 1] ?? null;

        return new EntryPage($this->lines->lines($rows, $project, $cycles), $total, $more && null !== $last ? $order->cursor($last) : null);
    }

    /**
     * Everything that fits, with no more than choosing needs.
     *
     * @return list<EntryChoice>
     */
    public function choices(Cycle $cycle, EntryFilter $filter): array
    {
        $project = ProjectLookup::find($cycle->project_id);
        $estimates = new Estimates($project->id);
        $done = UndecidedEntries::in($cycle)->pluck('id')->flip();

        return array_values(
            $this->narrowed($cycle, $project, $filter)
                ->orderBy('entries.position')
                ->get(['entries.id', 'walk_times', 'estimate_seconds', 'steps_count', 'rounds', 'open_attempt_id'])
                ->map(
                    static fn(\stdClass $e): EntryChoice => new EntryChoice(
                        $e->id,
                        $estimates->entry($e->walk_times, $e->estimate_seconds, $e->steps_count, $e->rounds),
                        null !== $e->open_attempt_id,
                        !isset($done[$e->id]),
                    ),
                )
                ->all(),
        );
    }

    /**
     * The trail of a person through a cycle: what is theirs, the entry they are on, and what of nobody's may come next.
     *
     * @param  ?string  $entry the one they are on
     *
     * @return list<EntryLine> in the order of the cycle
     */
    public function trail(Cycle $cycle, User $user, ?string $entry): array
    {
        $project = ProjectLookup::find($cycle->project_id);
        $entry = null !== $entry && Str::isUuid($entry) ? $entry : null;
        $ids = DB::table('entries')->where('cycle_id', $cycle->id)->where('assignee_id', $user->id)->orderBy('position')->limit(2000);
        $wanted = [...$ids->pluck('id')->all(), ...null === $entry ? [] : [$entry]];
        if (Policies::fromArray($project->policies)->openingTakes) {
            $free = DB::table('entries')
                ->where('cycle_id', $cycle->id)
                ->whereNull('assignee_id')
                ->whereIn('display_state', UndecidedEntries::STATES)
                ->orderBy('position')
                ->limit(self::FREE);
            $here = DB::table('entries')->where('cycle_id', $cycle->id)->where('id', $entry)->value('position');
            array_push($wanted, ...$free->pluck('id')->all());
            if (null !== $here) {
                array_push($wanted, ...$free->clone()->where('position', '>', $here)->pluck('id')->all());
            }
        }
        $query = EntryLines::query()
            ->where('entries.cycle_id', $cycle->id)
            ->whereRaw('entries.id = any(?::uuid[])', ['{' . implode(',', array_unique($wanted)) . '}'])
            ->orderBy('entries.position');

        return $this->lines->of($query, $project, Collection::make([$cycle]));
    }

    private function narrowed(Cycle $cycle, Project $project, EntryFilter $filter): Builder
    {
        $query = DB::table('entries')->join('cases', 'cases.id', '=', 'entries.case_id')->where('entries.cycle_id', $cycle->id);
        WordFilter::narrow($query, $filter->words, 'cases.folded');
        if ('held' === $filter->shows || 'not_run' === $filter->shows) {
            // What waits is told from what was not run; both are not run.
            $held = '{' . implode(',', $this->read->held($cycle)) . '}';
            $not = 'held' === $filter->shows ? '' : 'not ';
            $query->where('display_state', 'not_run')->whereRaw("{$not}entries.id = any(?::uuid[])", [$held]);
        } elseif ('' !== $filter->shows) {
            $query->where('display_state', $filter->shows);
        }
        match (true) {
            'nobody' === $filter->assignee => $query->whereNull('assignee_id'),
            Str::isUuid($filter->assignee) => $query->where('assignee_id', $filter->assignee),
            default => $query,
        };
        if (Str::isUuid($filter->configuration)) {
            $query->where('entries.configuration_id', $filter->configuration);
        }
        if ($filter->outdated) {
            $query->whereRaw('entries.case_version_id <> ' . EntryLines::newestVersion($project));
        }
        if ($filter->joined) {
            $query->whereRaw(
                'entries.id in (select unnest(array[entry_id, needs_id]) from entry_conditions join entries e on e.id = entry_id ' .
                    'where e.cycle_id = ?)',
                [$cycle->id],
            );
        }
        if ([] !== $filter->ids) {
            $query->whereIn('entries.id', array_values(array_filter($filter->ids, Str::isUuid(...))));
        }

        return $query;
    }
}
