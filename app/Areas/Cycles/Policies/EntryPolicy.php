<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Policies;

use LucidStep\App\Models\Entry;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\Core\Access\Permission;
use LucidStep\Core\Verdict\Policies;

/**
 * What a person may do with an entry.
 */
final readonly class EntryPolicy
{
    public function __construct(private Memberships $memberships) {}

    public function walk(User $user, Entry $entry): bool
    {
        return $this->memberships->may($user, $entry->project_id, Permission::Record);
    }

    /**
     * Whether the person may record this very entry; the project may leave that to its assignee.
     */
    public function record(User $user, Entry $entry): bool
    {
        $leads = $this->memberships->may($user, $entry->project_id, Permission::Lead);

        return $this->walk($user, $entry) &&
            Policies::fromArray($entry->cycle->project->policies)->letsRecord($entry->assignee_id, $user->id, $leads);
    }

    /**
     * A lead takes new versions into the plan; who walks an entry may take them there.
     */
    public function takeVersion(User $user, Entry $entry): bool
    {
        return $this->memberships->may($user, $entry->project_id, Permission::Lead) ||
            ($entry->assignee_id === $user->id && $this->walk($user, $entry));
    }

    public function askRetest(User $user, Entry $entry): bool
    {
        return $this->memberships->may($user, $entry->project_id, Permission::Lead);
    }
}
