<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Queries;

use LucidStep\App\Models\Environment;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;

/**
 * What people see of a part of the setup that is replaced whole, to be told apart from how it is later.
 */
final class SetupState
{
    /**
     * @return array{list<int>, list<string>, string} working days, holidays and time zone
     */
    public static function calendar(Project $project): array
    {
        return [$project->working_days, $project->holidays, $project->time_zone];
    }

    /**
     * @return array{int, list<string>} minutes a day and days off
     */
    public static function time(Membership $member): array
    {
        return [$member->minutes_per_day, $member->days_off];
    }

    /**
     * @param  iterable<Environment>  $environments in order
     *
     * @return list<array{string, string, string, ?string, string, bool}> id, name, address, build, notes and whether it is observed
     */
    public static function environments(iterable $environments): array
    {
        $all = [];
        foreach ($environments as $e) {
            $all[] = [$e->id, $e->name, $e->address, $e->build_id, $e->notes, $e->observed];
        }

        return $all;
    }

    /**
     * @return array{?int, ?int} MB and days
     */
    public static function storage(Project $project): array
    {
        return [$project->storage_limit_mb, $project->retention_days];
    }
}
