<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Access;

use Illuminate\Database\Eloquent\ModelNotFoundException;
use Illuminate\Http\Request;
use Illuminate\Support\Str;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Role;
use LucidStep\App\Models\User;

/**
 * Who is what in which project, asked once per request.
 */
final class Memberships
{
    /** @var array<string, ?Role> */
    private array $known = [];

    /**
     * The person's role, null when they have no part in the project.
     */
    public function role(User $user, string $projectId): ?Role
    {
        $key = "{$user->id} {$projectId}";
        if (!\array_key_exists($key, $this->known)) {
            $this->known[$key] = Membership::query()->where('user_id', $user->id)->where('project_id', $projectId)->first()?->role;
        }

        return $this->known[$key];
    }

    /**
     * The role of somebody whom the address has let in.
     */
    public function sure(User $user, string $projectId): Role
    {
        return $this->role($user, $projectId) ?? throw new \LogicException('The address lets strangers in.');
    }

    /**
     * A person's part in a project.
     *
     * @throws ModelNotFoundException when they have none
     */
    public function of(string $projectId, string $userId): Membership
    {
        return Membership::query()
            ->where('project_id', $projectId)
            ->where('user_id', Str::isUuid($userId) ? $userId : null)
            ->firstOrFail();
    }

    /**
     * Who asks; guests do not come so far.
     */
    public function person(Request $request): User
    {
        $user = $request->user();

        return $user instanceof User ? $user : throw new \LogicException('Guests do not come here.');
    }
}
