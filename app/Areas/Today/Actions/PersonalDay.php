<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Today\Actions;

use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Carbon;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;

/**
 * What a person keeps for themselves over a day in a project: up to when they saw what changed, and scratch notes.
 */
final class PersonalDay
{
    /**
     * They have seen what changed up to a time.
     */
    public function seen(Project $project, User $user, Carbon $until): void
    {
        $this->mine($project, $user)->update(['today_seen_at' => $until->utc()->format('Y-m-d H:i:s.uP')]);
    }

    public function note(Project $project, User $user): string
    {
        return (string) $this->mine($project, $user)->value('scratch');
    }

    public function write(Project $project, User $user, string $text): void
    {
        $this->mine($project, $user)->update(['scratch' => $text]);
    }

    /**
     * @return Builder<Membership>
     */
    private function mine(Project $project, User $user): Builder
    {
        return Membership::query()->where('project_id', $project->id)->where('user_id', $user->id);
    }
}
