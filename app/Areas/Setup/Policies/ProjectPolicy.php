<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Policies;

use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\Core\Access\Permission;

/**
 * What a person may do in a project.
 */
final readonly class ProjectPolicy
{
    public function __construct(private Memberships $memberships) {}

    public function writeCases(User $user, Project $project): bool
    {
        return $this->memberships->may($user, $project->id, Permission::WriteCases);
    }

    public function lead(User $user, Project $project): bool
    {
        return $this->memberships->may($user, $project->id, Permission::Lead);
    }

    public function administer(User $user, Project $project): bool
    {
        return $this->memberships->may($user, $project->id, Permission::Administer);
    }

    public function removeContent(User $user, Project $project): bool
    {
        return $this->memberships->may($user, $project->id, Permission::RemoveContent);
    }

    public function workOnDefects(User $user, Project $project): bool
    {
        return $this->memberships->may($user, $project->id, Permission::WorkOnDefects);
    }

    public function fileDefects(User $user, Project $project): bool
    {
        return $this->memberships->may($user, $project->id, Permission::FileDefects);
    }
}
