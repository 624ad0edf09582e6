<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Queries;

use LucidStep\App\Areas\Setup\Data\HandsetAddressLine;
use LucidStep\App\Models\Environment;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Data\Named;
use LucidStep\Core\Evidence\HandsetAddress;

/**
 * What the handset of a project may show: the practice page of the demo, and the addresses of its environments.
 */
final class HandsetAddresses
{
    /**
     * @return list<HandsetAddressLine>
     */
    public static function of(Project $project): array
    {
        $practice = config('lucid.demo') ? (string) config('lucid.practice_url') : '';
        $origin = HandsetAddress::originOf($practice);
        $lines = null === $origin ? [] : [new HandsetAddressLine(null, 'Practice page', $practice, $origin, true, null, true)];
        foreach (Environment::query()->where('project_id', $project->id)->with('build')->orderBy('position')->get() as $one) {
            $origin = HandsetAddress::originOf($one->address);
            if (null !== $origin) {
                $lines[] = new HandsetAddressLine(
                    $one->id,
                    $one->name,
                    $one->address,
                    $origin,
                    false,
                    Named::orNull($one->build),
                    $one->observed,
                );
            }
        }

        return $lines;
    }

    /**
     * @return list<string> the origins, each once
     */
    public static function origins(Project $project): array
    {
        return array_values(array_unique(array_map(static fn(HandsetAddressLine $l): string => $l->origin, self::of($project))));
    }
}
