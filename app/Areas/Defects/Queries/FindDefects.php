<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Queries;

use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Areas\Defects\Data\DefectPage;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Paging\WindowOrder;
use LucidStep\App\Support\Paging\WordFilter;
use LucidStep\Core\Defects\DefectState;

/**
 * Finds defects by key, words, state and severity.
 */
final class FindDefects
{
    public const PAGE = 100;

    /** What narrows the list, by its name in the address. */
    public const NARROWED = ['severity', 'priority', 'assignee', 'reporter', 'build'];

    /** What each order goes by, before the number; nothing in it is null. */
    private const SORTS = [
        'number' => [],
        'title' => ['folded' => 'text'],
        'state' => [
            "coalesce(array_position(array['new', 'reopened', 'accepted', 'needs_information', 'in_work', 'fixed'], state::text), 99)" =>
                'bigint',
        ],
        'severity' => ["coalesce(array_position(array['critical', 'major', 'minor', 'trivial'], severity::text), 99)" => 'bigint'],
    ];

    /**
     * @param  string  $state a state, `open`, `closed`, or empty for all
     * @param  array<value-of<self::NARROWED>, string>  $narrowed each empty: any; people by id, `me` or, for whoever has it, `nobody`
     * @param  string  $sort of {@see SORTS}, with "-" before it backwards; anything else: the newest first
     * @param  string  $after where the page before ended
     */
    public function __invoke(
        Project $project,
        User $me,
        string $words = '',
        string $state = '',
        array $narrowed = [],
        string $sort = '',
        string $after = '',
    ): DefectPage {
        $query = DB::table('defects')->where('project_id', $project->id);
        WordFilter::narrow($query, $words, 'folded');
        $closed = array_filter(DefectState::cases(), static fn(DefectState $s): bool => $s->isClosed());
        match (true) {
            'open' === $state => $query->whereNotIn('state', $closed),
            'closed' === $state => $query->whereIn('state', $closed),
            null !== DefectState::tryFrom($state) => $query->where('state', $state),
            default => $query,
        };
        $this->narrow($query, array_filter($narrowed, static fn(string $v): bool => '' !== $v), $me);
        $total = (clone $query)->count();
        $name = ltrim($sort, '-');
        $back = isset(self::SORTS[$name]) ? str_starts_with($sort, '-') : true;
        $order = new WindowOrder([...self::SORTS[$name] ?? [], 'number' => 'bigint'], $back);
        $order->apply($query, $after);
        $query->addSelect('id')->limit(self::PAGE + 1);
        $found = $query->get();
        $page = $found->take(self::PAGE);
        $last = $page->last();

        return new DefectPage(
            DefectLines::of(array_values($page->pluck('id')->map(strval(...))->all())),
            $total,
            $found->count() > self::PAGE && null !== $last ? $order->cursor($last) : null,
        );
    }

    /**
     * @param  array<string, string>  $narrowed
     */
    private function narrow(Builder $query, array $narrowed, User $me): void
    {
        foreach (['severity', 'priority'] as $field) {
            if (isset($narrowed[$field])) {
                $query->where($field, $narrowed[$field]);
            }
        }
        foreach (['assignee' => 'assignee_id', 'reporter' => 'reporter_id', 'build' => 'build_id'] as $name => $column) {
            $value = $narrowed[$name] ?? null;
            match (true) {
                null === $value => $query,
                'me' === $value && 'build' !== $name => $query->where($column, $me->id),
                'nobody' === $value && 'assignee' === $name => $query->whereNull($column),
                Str::isUuid($value) => $query->where($column, $value),
                // What is no id is nobody's.
                default => $query->whereRaw('false'),
            };
        }
    }
}
