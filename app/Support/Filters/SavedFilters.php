<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Filters;

use LucidStep\App\Models\Project;
use LucidStep\App\Models\SavedFilter;
use LucidStep\App\Models\User;

/**
 * Filters that were kept under a name: one's own, and those that others share.
 */
final class SavedFilters
{
    /**
     * @param  'case'|'defect'  $subject what they are of
     *
     * @return list<SavedFilterLine>
     */
    public static function of(Project $project, User $user, string $subject): array
    {
        return array_values(
            SavedFilter::query()
                ->where('project_id', $project->id)
                ->where('subject', $subject)
                ->where(static fn($q) => $q->where('user_id', $user->id)->orWhere('shared', true))
                ->with('user')
                ->orderBy('name')
                ->get()
                ->map(static fn(SavedFilter $f): SavedFilterLine => SavedFilterLine::from($f, $user->id))
                ->all(),
        );
    }

    /**
     * Keeps one; one of one's own with the same name is replaced.
     *
     * @param  'case'|'defect'  $subject
     * @param  array<string, string>  $filter
     */
    public static function keep(Project $project, User $user, string $subject, string $name, bool $shared, array $filter): SavedFilter
    {
        $key = ['project_id' => $project->id, 'user_id' => $user->id, 'subject' => $subject, 'name' => trim($name)];

        return SavedFilter::query()
            ->updateOrCreate($key, ['shared' => $shared, 'filter' => $filter])
            ->load('user');
    }
}
