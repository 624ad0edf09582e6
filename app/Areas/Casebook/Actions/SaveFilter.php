<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Actions;

use LucidStep\App\Areas\Casebook\Queries\CaseFilter;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\SavedFilter;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Filters\SavedFilters;

/**
 * Keeps a filter of the casebook under a name; one of one's own with the same name is replaced.
 */
final class SaveFilter
{
    /**
     * @param  array<string, mixed>  $input as it came in, with the order of the list
     */
    public function __invoke(Project $project, User $user, string $name, bool $shared, array $input): SavedFilter
    {
        $order = array_filter(['sort' => $input['sort'] ?? null, 'group' => $input['group'] ?? null], is_string(...));
        $filter = [...CaseFilter::from($project, $input, $user->id)->asked, ...$order];
        unset($filter['ids'], $filter['bin']);

        return SavedFilters::keep($project, $user, 'case', $name, $shared, $filter);
    }

    public function delete(SavedFilter $filter): void
    {
        $filter->delete();
    }
}
