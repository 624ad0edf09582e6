<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Policies;

use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\Core\Access\Role;

/**
 * What a person may do in a project.
 */
final readonly class ProjectPolicy
{
    public function __construct(private Memberships $memberships) {}

    public function writeCases(User $user, Project $project): bool
    {
        return $this->memberships->role($user, $project->id)?->records() ?? false;
    }

    public function lead(User $user, Project $project): bool
    {
        return $this->memberships->role($user, $project->id)?->leads() ?? false;
    }

    public function administer(User $user, Project $project): bool
    {
        return Role::Admin === $this->memberships->role($user, $project->id);
    }

    public function removeContent(User $user, Project $project): bool
    {
        return $this->administer($user, $project);
    }

    public function fileDefects(User $user, Project $project): bool
    {
        return $this->memberships->role($user, $project->id)?->records() ?? false;
    }
}
