<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Casebook\Data\CaseCounts;
use LucidStep\App\Areas\Casebook\Data\GroupCount;
use LucidStep\App\Areas\Setup\Queries\ProjectLists;
use LucidStep\App\Models\Project;

/**
 * Counts what a filter finds. Apart from the list, which need not wait for it: a count looks at every case that fits,
 * a list only at those it shows.
 */
final readonly class CountCases
{
    /** What can be counted by. */
    public const GROUPS = ['state', 'type', 'priority', 'owner'];

    /** The total is counted no further. */
    private const COUNTED = 10_000;

    /** And what was searched for, no further than that. */
    private const COUNTED_FINDS = 2000;

    /**
     * @param  string  $group one of {@see GROUPS}; empty: no groups
     */
    public function __invoke(Project $project, CaseFilter $filter, string $group = ''): CaseCounts
    {
        $most = null === $filter->searchWords() ? self::COUNTED : self::COUNTED_FINDS;
        $total = self::upTo($filter, $most + 1);

        return new CaseCounts(
            min($total, $most),
            $total > $most,
            \in_array($group, self::GROUPS, true) ? $this->groups($project, $filter, $group) : [],
        );
    }

    /**
     * How many there are, looking no further than $most.
     */
    public static function upTo(CaseFilter $filter, int $most): int
    {
        return DB::query()
            ->fromSub($filter->query()->toBase()->select(DB::raw('1'))->limit($most), 'n')
            ->count();
    }

    /**
     * How many there are among the first cases by number, looking no further than $most.
     */
    public static function among(CaseFilter $filter, int $first, int $most): int
    {
        $probe = CaseFilter::from($filter->project, ['bin' => $filter->asked['bin'] ?? ''])
            ->query()
            ->toBase()
            ->select('id', 'search')
            ->orderBy('number')
            ->limit($first);

        return DB::query()
            ->fromSub(
                DB::query()
                    ->fromSub($probe, 'probe')
                    ->whereRaw('search @@ lucid_query(?)', [$filter->searchWords()])
                    ->select(DB::raw('1'))
                    ->limit($most),
                'n',
            )
            ->count();
    }

    /**
     * @return list<GroupCount>
     */
    private function groups(Project $project, CaseFilter $filter, string $group): array
    {
        // By the column that the index for this order has: the index alone answers then.
        $column = ['state' => 'state', 'type' => 'type', 'priority' => 'priority_rank', 'owner' => 'owner_id'][$group];
        $priorities = 'priority' === $group ? (new ProjectLists($project))->values('priority') : [];

        return array_values(
            $filter
                ->query()
                ->toBase()
                ->groupBy($column)
                ->get([$column, DB::raw('count(*) as n')])
                ->map(
                    static fn(object $r): GroupCount => new GroupCount(
                        'priority' === $group ? $priorities[$r->{$column} - 1] ?? '' : (string) $r->{$column},
                        (int) $r->n,
                    ),
                )
                ->all(),
        );
    }
}
