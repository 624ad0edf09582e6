<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Queries;

use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Milestone;
use LucidStep\Core\Planning\CycleState;

/**
 * Which names for cycles and milestones a project has already. An abandoned cycle gives its name free.
 */
final readonly class TakenNames
{
    /**
     * @param  list<string>  $names what cycles are to be called
     * @param  string|null  $but the id of the cycle that is to be called so
     * @return list<string> what to say of each that is taken, also by one before it in this list
     */
    public static function ofCycles(string $projectId, array $names, ?string $but = null): array
    {
        /** @var list<string> $taken */
        $taken = Cycle::query()
            ->where('project_id', $projectId)
            ->whereIn('name', $names)
            ->whereKeyNot($but)
            ->whereNot('state', CycleState::Abandoned)
            ->pluck('name')
            ->all();
        $twice = array_keys(array_filter(array_count_values($names), static fn(int $times): bool => $times > 1));

        return array_map(
            static fn(int|string $name): string => "There is a cycle called “{$name}”.",
            array_values(array_unique([...$taken, ...$twice])),
        );
    }

    /**
     * @param  string|null  $but the id of the milestone that is to be called so
     * @return list<string> what to say of it, or nothing
     */
    public static function ofMilestone(string $projectId, string $name, ?string $but = null): array
    {
        $is = Milestone::query()
            ->where('project_id', $projectId)
            ->whereRaw('lower(name) = lower(?)', [$name])
            ->whereKeyNot($but)
            ->exists();

        return $is ? ["There is a milestone called “{$name}”."] : [];
    }
}
