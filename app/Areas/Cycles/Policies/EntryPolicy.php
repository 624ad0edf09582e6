<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Policies;

use LucidStep\App\Models\Entry;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\Core\Verdict\Policies;

/**
 * What a person may do with an entry.
 */
final readonly class EntryPolicy
{
    public function __construct(private Memberships $memberships) {}

    public function walk(User $user, Entry $entry): bool
    {
        return $this->memberships->role($user, $entry->project_id)?->records() ?? false;
    }

    /**
     * Whether the person may record this very entry; the project may leave that to its assignee.
     */
    public function record(User $user, Entry $entry): bool
    {
        $role = $this->memberships->role($user, $entry->project_id);

        return true === $role?->records() &&
            Policies::fromArray($entry->cycle->project->policies)->letsRecord($entry->assignee_id, $user->id, $role->leads());
    }

    /**
     * A lead takes new versions into the plan; who walks an entry may take them there.
     */
    public function takeVersion(User $user, Entry $entry): bool
    {
        $role = $this->memberships->role($user, $entry->project_id);

        return null !== $role && ($role->leads() || ($role->records() && $entry->assignee_id === $user->id));
    }

    public function askRetest(User $user, Entry $entry): bool
    {
        return $this->memberships->role($user, $entry->project_id)?->leads() ?? false;
    }
}
