<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Queries;

use LucidStep\App\Areas\Defects\Data\DefectLine;
use LucidStep\App\Areas\Defects\Data\DefectPage;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\Project;
use LucidStep\Core\Defects\DefectState;

/**
 * Finds defects by key, words and state, newest first.
 */
final class FindDefects
{
    private const PAGE = 100;

    /**
     * @param  string  $state a state, `open`, `closed`, or empty for all
     * @param  int  $after the number of the last defect of the page before; 0 for the first page
     */
    public function __invoke(Project $project, string $words = '', string $state = '', int $after = 0): DefectPage
    {
        $query = Defect::query()
            ->where('project_id', $project->id)
            ->with('reporter', 'assignee', 'case', 'build')
            ->orderByDesc('number')
            ->limit(self::PAGE + 1);
        foreach (preg_split('/\s+/u', trim(mb_substr($words, 0, 200)), -1, \PREG_SPLIT_NO_EMPTY) ?: [] as $word) {
            $like = '%' . addcslashes($word, '%_\\') . '%';
            $query->where(static fn($q) => $q->where('title', 'ilike', $like)->orWhere('key', 'ilike', $like));
        }
        $closed = array_filter(DefectState::cases(), static fn(DefectState $s): bool => $s->isClosed());
        match (true) {
            'open' === $state => $query->whereNotIn('state', $closed),
            'closed' === $state => $query->whereIn('state', $closed),
            null !== DefectState::tryFrom($state) => $query->where('state', $state),
            default => $query,
        };
        if ($after > 0) {
            $query->where('number', '<', $after);
        }
        $found = $query->get();
        $page = $found->take(self::PAGE);

        return new DefectPage(
            array_values($page->map(DefectLine::from(...))->all()),
            $found->count() > self::PAGE ? (string) $page->last()?->number : null,
        );
    }
}
