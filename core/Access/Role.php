<?php

declare(strict_types=1);

namespace LucidStep\Core\Access;

/**
 * What a person is in a project.
 */
enum Role: string
{
    case Admin = 'admin';
    case Lead = 'lead';
    case Tester = 'tester';
    case Developer = 'developer';
    case Reader = 'reader';

    /**
     * Whether they may all that another role may.
     */
    public function isAtLeast(self $role): bool
    {
        return array_search($this, Access::ROLES, true) >= array_search($role, Access::ROLES, true);
    }

    /**
     * Whether they plan, review and record for others.
     */
    public function leads(): bool
    {
        return Access::allows($this, Permission::Lead, new AccessPolicies());
    }

    /**
     * Whether they walk entries and file defects.
     */
    public function records(): bool
    {
        return Access::allows($this, Permission::Record, new AccessPolicies());
    }

    /**
     * Whether they work on defects.
     */
    public function worksOnDefects(): bool
    {
        return Access::allows($this, Permission::WorkOnDefects, new AccessPolicies());
    }
}
