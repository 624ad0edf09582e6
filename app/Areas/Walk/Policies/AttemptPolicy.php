<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Policies;

use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\Core\Access\Permission;

/**
 * What a person may do with an attempt.
 */
final readonly class AttemptPolicy
{
    public function __construct(private Memberships $memberships) {}

    /**
     * Whether what the person recorded is kept at all: of those who record in this project, and of whoever walks it and
     * lost the right. Whose attempt it is now is judged with the act.
     */
    public function record(User $user, Attempt $attempt): bool
    {
        return $attempt->tester_id === $user->id || $this->memberships->may($user, $attempt->project_id, Permission::Record);
    }

    public function takeOver(User $user, Attempt $attempt): bool
    {
        return $this->memberships->may($user, $attempt->project_id, Permission::Record);
    }

    public function correctTime(User $user, Attempt $attempt): bool
    {
        return $this->memberships->may($user, $attempt->project_id, Permission::Lead) ||
            ($attempt->tester_id === $user->id && $this->memberships->may($user, $attempt->project_id, Permission::Record));
    }
}
