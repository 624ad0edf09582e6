<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Search\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Search\Data\GoToItem;
use LucidStep\App\Models\Project;

/**
 * Finds cases, cycles and defects by words of their titles or their key.
 */
final class SearchProject
{
    /** So many of each kind. */
    private const EACH = 6;

    /**
     * @param  bool  $planned whether cycles that are still being planned are among them
     *
     * @return list<GoToItem>
     */
    public function __invoke(Project $project, string $words, bool $planned): array
    {
        $like = '%' . addcslashes($words, '%_\\') . '%';
        $items = [];
        foreach (
            ['case' => ['cases', 'title'], 'cycle' => ['cycles', 'name'], 'defect' => ['defects', 'title']]
            as $kind => [$table, $column]
        ) {
            $rows = DB::table($table)
                ->where('project_id', $project->id)
                ->when('case' === $kind, static fn($q) => $q->whereNull('binned_at'))
                ->when('cycle' === $kind && !$planned, static fn($q) => $q->whereNotIn('state', ['draft', 'in_review']))
                ->where(static fn($q) => $q->where($column, 'ilike', $like)->orWhere('key', 'ilike', $like))
                ->orderBy('number')
                ->limit(self::EACH)
                ->get(['key', "{$column} as title"]);
            foreach ($rows as $row) {
                $items[] = new GoToItem($kind, $row->key, $row->title);
            }
        }

        return $items;
    }
}
