<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Policies;

use LucidStep\App\Models\TestCase;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\Core\Access\Permission;

/**
 * What a person may do with a case.
 */
final readonly class TestCasePolicy
{
    public function __construct(private Memberships $memberships) {}

    public function write(User $user, TestCase $case): bool
    {
        return $this->memberships->may($user, $case->project_id, Permission::WriteCases);
    }

    public function approve(User $user, TestCase $case): bool
    {
        return $this->memberships->may($user, $case->project_id, Permission::Lead);
    }

    public function ask(User $user, TestCase $case): bool
    {
        return $this->memberships->may($user, $case->project_id, Permission::WorkOnDefects);
    }
}
