<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Queries;

use LucidStep\App\Areas\Setup\Data\HandsetAddressLine;
use LucidStep\App\Models\Environment;
use LucidStep\App\Models\Project;

/**
 * From which addresses a project lets pages report what is done on them: the practice page of the demo, and the environments that say so.
 */
final class ObservedOrigins
{
    /**
     * @return list<HandsetAddressLine> in order; none: nothing is observed
     */
    public static function of(Project $project): array
    {
        $observed = Environment::query()->where('project_id', $project->id)->where('observed', true)->pluck('id')->all();

        return array_values(
            array_filter(
                HandsetAddresses::of($project),
                static fn(HandsetAddressLine $l): bool => $l->built_in || \in_array($l->environment_id, $observed, true),
            ),
        );
    }

    public static function lists(Project $project, string $origin): bool
    {
        return \in_array($origin, array_map(static fn(HandsetAddressLine $l): string => $l->origin, self::of($project)), true);
    }
}
