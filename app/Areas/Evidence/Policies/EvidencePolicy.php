<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Evidence\Policies;

use LucidStep\App\Models\Evidence;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\Core\Access\Permission;

/**
 * Who may caption or remove evidence: whoever added it, or a lead.
 */
final readonly class EvidencePolicy
{
    public function __construct(private Memberships $memberships) {}

    public function change(User $user, Evidence $evidence): bool
    {
        return $this->memberships->may($user, $evidence->project_id, Permission::Lead) ||
            ($evidence->added_by_id === $user->id && $this->memberships->may($user, $evidence->project_id, Permission::Record));
    }
}
