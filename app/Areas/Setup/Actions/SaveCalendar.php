<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Actions;

use LucidStep\App\Areas\Setup\Queries\SetupState;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\App\Support\Revisions\Seen;
use LucidStep\Core\Planning\Calendar;

/**
 * When a project works, and how much each person can walk in a day.
 */
final readonly class SaveCalendar
{
    public function __construct(private PublishChange $announce) {}

    /**
     * @param  list<int>  $weekdays 1 (Monday) to 7
     * @param  list<string>  $holidays
     * @param  ?string  $seen the state that the person saw ({@see Seen})
     */
    public function write(Project $project, array $weekdays, array $holidays, string $zone, ?string $seen): void
    {
        Project::query()->lockForUpdate()->findOrFail($project->id);
        $project->refresh();
        Seen::check($seen, SetupState::calendar($project), 'the calendar');
        sort($weekdays);
        sort($holidays);
        $project->update([
            'working_days' => array_values(array_unique($weekdays)),
            'holidays' => array_values(array_unique($holidays)),
            'time_zone' => $zone,
        ]);
        ($this->announce)($project->id, 'setup', $project->id);
    }

    /**
     * @param  list<string>  $daysOff
     * @param  ?string  $seen the state that the person saw ({@see Seen})
     */
    public function person(Membership $member, int $minutes, array $daysOff, ?string $seen): void
    {
        $member = Membership::query()->lockForUpdate()->findOrFail($member->id);
        Seen::check($seen, SetupState::time($member), "this person's time");
        sort($daysOff);
        $member->update(['minutes_per_day' => $minutes, 'days_off' => array_values(array_unique($daysOff))]);
        ($this->announce)($member->project_id, 'setup', $member->user_id);
    }

    public static function of(Project $project): Calendar
    {
        return new Calendar($project->working_days, $project->holidays);
    }
}
