<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Queries;

use LucidStep\App\Areas\People\Data\PreferenceSet;
use LucidStep\App\Areas\People\Data\ProjectPage;
use LucidStep\App\Areas\People\Data\ProjectSummary;
use LucidStep\App\Areas\People\Data\SessionState;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Data\Named;
use LucidStep\App\Support\Data\Person;
use LucidStep\Core\Access\Role;

/**
 * Reads the projects that people have a part in.
 */
final class ReadProjects
{
    /**
     * @return list<ProjectSummary> by name
     */
    public function of(User $user): array
    {
        $memberships = Membership::query()->where('user_id', $user->id)->with('project')->get()->sortBy('project.name');

        return array_values(
            $memberships
                ->map(
                    static fn(Membership $m): ProjectSummary => ProjectSummary::from(
                        $m->project,
                        $m->role,
                        null !== $user->totp_confirmed_at,
                    ),
                )
                ->all(),
        );
    }

    /**
     * A project with its builds and people.
     */
    public function page(Project $project, Role $role): ProjectPage
    {
        $people = Membership::query()
            ->where('project_id', $project->id)
            ->with('user')
            ->get()
            ->map(static fn(Membership $m): Person => Person::from($m->user));
        $builds = Build::query()
            ->where('project_id', $project->id)
            ->orderByDesc('position')
            ->get()
            ->map(static fn(Build $b): Named => Named::from($b));

        return new ProjectPage(
            ProjectSummary::from($project, $role, true),
            array_values($builds->all()),
            array_values($people->sortBy('name')->all()),
        );
    }

    public function session(User $user): SessionState
    {
        // The same each time, and told to this person alone.
        $key = base64_encode(hash_hmac('sha256', "device {$user->id}", (string) config('app.key'), true));

        return new SessionState(
            Person::from($user),
            $user->email,
            $this->of($user),
            $key,
            $user->is_owner,
            PreferenceSet::from($user->chosen()),
        );
    }
}
