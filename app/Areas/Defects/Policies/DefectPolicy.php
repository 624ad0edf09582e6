<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Policies;

use LucidStep\App\Models\Defect;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\Core\Access\Permission;

/**
 * Who may change a defect, and who may link it to what was walked.
 */
final readonly class DefectPolicy
{
    public function __construct(private Memberships $memberships) {}

    public function update(User $user, Defect $defect): bool
    {
        return $this->memberships->may($user, $defect->project_id, Permission::WorkOnDefects);
    }

    public function link(User $user, Defect $defect): bool
    {
        return $this->memberships->may($user, $defect->project_id, Permission::FileDefects);
    }
}
