<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Queries;

use LucidStep\App\Areas\Defects\Data\DefectLine;
use LucidStep\App\Areas\Defects\Data\DefectPage;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Paging\WindowOrder;
use LucidStep\App\Support\Paging\WordFilter;
use LucidStep\Core\Defects\DefectState;

/**
 * Finds defects by key, words, state and severity.
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
    ];

    /**
     * @param  string  $state a state, `open`, `closed`, or empty for all
     * @param  string  $severity empty: any
     * @param  string  $sort of {@see SORTS}, with "-" before it backwards; anything else: the newest first
     * @param  string  $after where the page before ended
     */
    public function __invoke(
        Project $project,
        string $words = '',
        string $state = '',
        string $severity = '',
        string $sort = '',
        string $after = '',
    ): DefectPage {
        $query = Defect::query()->where('project_id', $project->id)->with('reporter', 'assignee', 'case', 'build');
        WordFilter::narrow($query, $words, 'folded');
        $closed = array_filter(DefectState::cases(), static fn(DefectState $s): bool => $s->isClosed());
        match (true) {
            'open' === $state => $query->whereNotIn('state', $closed),
            'closed' === $state => $query->whereIn('state', $closed),
            null !== DefectState::tryFrom($state) => $query->where('state', $state),
            default => $query,
        };
        if ('' !== $severity) {
            $query->where('severity', $severity);
        }
        $total = (clone $query)->count();
        $name = ltrim($sort, '-');
        $back = isset(self::SORTS[$name]) ? str_starts_with($sort, '-') : true;
        $order = new WindowOrder([...self::SORTS[$name] ?? [], 'number' => 'bigint'], $back);
        $order->apply($query->getQuery(), $after);
        $query->addSelect('defects.*')->limit(self::PAGE + 1);
        $found = $query->get();
        $page = $found->take(self::PAGE);
        $last = $page->last();

        return new DefectPage(
            array_values($page->map(DefectLine::from(...))->all()),
            $total,
            $found->count() > self::PAGE && null !== $last ? $order->cursor($last) : null,
        );
    }
}
