<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Queries;

use LucidStep\App\Areas\Setup\Data\HandsetAddressLine;
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
        return array_values(array_filter(HandsetAddresses::of($project), static fn(HandsetAddressLine $l): bool => $l->observed));
    }

    public static function lists(Project $project, string $origin): bool
    {
        return \in_array($origin, array_column(self::of($project), 'origin'), true);
    }
}
