<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Queries;

use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Defects\Data\DefectGroup;
use LucidStep\App\Areas\Defects\Data\DefectPage;
use LucidStep\App\Support\Paging\WindowOrder;

/**
 * Lists defects that fit a filter, by windows, in groups where they are asked for.
 */
final class FindDefects
{
    public const PAGE = 100;

    /** What each order goes by, before the number; nothing in it is null. */
    private const SORTS = [
        'number' => [],
        'title' => ['folded' => 'text'],
        'state' => [
            "coalesce(array_position(array['new', 'reopened', 'accepted', 'needs_information', 'in_work', 'fixed'], state::text), 99)" =>
                'bigint',
        ],
        'severity' => ["coalesce(array_position(array['critical', 'major', 'minor', 'trivial'], severity::text), 99)" => 'bigint'],
        'priority' => ["coalesce(array_position(array['now', 'soon', 'later'], priority::text), 99)" => 'bigint'],
        'changed' => ['(extract(epoch from updated_at) * 1000000)::bigint' => 'bigint'],
        'age' => ['open_ms + coalesce((extract(epoch from (date_trunc(\'day\', now()) - open_since)) * 1000)::bigint, 0)' => 'bigint'],
    ];

    /** What orders and groups are made of. */
    private const COLUMNS = [
        ...['defects.id', 'defects.number', 'folded', 'state', 'severity', 'priority', 'updated_at', 'open_ms', 'open_since'],
        ...['assignee_id', 'component', 'build_id'],
    ];

    /** What each group goes by, its value, and in which order groups stand. */
    private const GROUPS = [
        'state' => [
            'state',
            "coalesce(array_position(array['new', 'reopened', 'accepted', 'needs_information', 'in_work', 'fixed', 'verified', " .
            "'closed'], state::text), 99)",
        ],
        'severity' => ['severity', "array_position(array['critical', 'major', 'minor', 'trivial'], severity::text)"],
        'priority' => ["coalesce(priority, '')", "coalesce(array_position(array['now', 'soon', 'later'], priority::text), 99)"],
        'assignee' => ["coalesce(assignee_id::text, '')", "coalesce(assignee_id::text, '')"],
        'component' => ['component', 'component'],
        'build' => ["coalesce(build_id::text, '')", "coalesce(build_id::text, '')"],
    ];

    /**
     * @param  string  $sort of {@see SORTS}, with "-" before it backwards; anything else: the newest first
     * @param  string  $after where the page before ended
     * @param  string  $group of {@see GROUPS}: each has its newest first; anything else: none
     */
    public function __invoke(DefectFilter $filter, string $sort = '', string $after = '', string $group = ''): DefectPage
    {
        $query = $this->found($filter);
        $counts = isset($filter->asked['q']) && '' === $after;
        $total = $counts ? 0 : (clone $query)->count();
        $by = self::GROUPS[$group] ?? null;
        $groups = null === $by || '' !== $after ? [] : $this->groups(clone $query, $by);
        $order =
            null === $by
                ? $this->order($sort)
                : new WindowOrder([$by[1] => $by[0] === $by[1] ? 'text' : 'bigint', '(-number)' => 'bigint'], false);
        $order->apply($query, $after);
        $query->addSelect('id')->limit(self::PAGE + 1);
        if ($counts) {
            $query->selectRaw('count(*) over () as total');
        }
        $found = $query->get();
        $page = $found->take(self::PAGE);
        $last = $page->last();

        return new DefectPage(
            DefectLines::of(array_values($page->pluck('id')->map(strval(...))->all())),
            $counts ? (int) ($found->first()->total ?? 0) : $total,
            $found->count() > self::PAGE && null !== $last ? $order->cursor($last) : null,
            $groups,
        );
    }

    /**
     * What words are in is found first, by their index, and ordered then: the planner would go through all in their order, and look into
     * each, as if words stood everywhere alike.
     */
    private function found(DefectFilter $filter): Builder
    {
        $query = $filter->query();

        return isset($filter->asked['q']) ? DB::query()->fromSub($query->select(self::COLUMNS)->offset(0), 'defects') : $query;
    }

    private function order(string $sort): WindowOrder
    {
        $name = ltrim($sort, '-');
        $back = isset(self::SORTS[$name]) ? str_starts_with($sort, '-') : true;

        return new WindowOrder([...self::SORTS[$name] ?? [], 'number' => 'bigint'], $back);
    }

    /**
     * @param  array{string, string}  $by value and order
     *
     * @return list<DefectGroup> in their order
     */
    private function groups(Builder $query, array $by): array
    {
        $values = DB::query()->fromSub($query->selectRaw("{$by[0]} as value, {$by[1]} as place"), 'd');

        return array_values(
            $values
                ->groupBy('value', 'place')
                ->orderBy('place')
                ->selectRaw('value, count(*) as n')
                ->get()
                ->map(static fn(\stdClass $g): DefectGroup => new DefectGroup((string) $g->value, (int) $g->n))
                ->all(),
        );
    }
}
