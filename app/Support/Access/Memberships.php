<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Access;

use Illuminate\Database\Eloquent\ModelNotFoundException;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Access;
use LucidStep\Core\Access\AccessPolicies;
use LucidStep\Core\Access\Permission;
use LucidStep\Core\Access\Role;

/**
 * Who is what in which project, asked once per request.
 */
final class Memberships
{
    /** @var array<string, ?Role> */
    private array $known = [];

    /** @var array<string, AccessPolicies> by project */
    private array $policies = [];

    /** @var array<string, ?string> */
    private array $hidden = [];

    /** @var array<string, ?string> by project its name, when it is archived */
    private array $archived = [];

    /**
     * The person's role, null when they have no part in the project.
     */
    public function role(User $user, string $projectId): ?Role
    {
        $key = "{$user->id} {$projectId}";
        if (!\array_key_exists($key, $this->known)) {
            $access = DB::table('projects')->whereColumn('id', 'project_id')->select('access');
            $of = Membership::query()->where('user_id', $user->id)->where('project_id', $projectId);
            $of->select('memberships.*')->selectSub($access, 'access');
            // What somebody writes is looked through for what is secret there: asked along, it costs no query of its own.
            if (!request()->isMethodSafe()) {
                $secrets = DB::table('project_secrets')->whereColumn('project_id', 'memberships.project_id')->select('hidden');
                $archived = DB::table('projects')->whereColumn('id', 'project_id')->whereNotNull('archived_at')->select('name');
                $of->selectSub($secrets, 'hidden')->selectSub($archived, 'archived');
            }
            $found = $of->first();
            $column = static fn(string $name): ?string => null === ($it = $found?->getAttributes()[$name] ?? null) ? null : (string) $it;
            $this->hidden[$projectId] = $column('hidden');
            if (null !== $found && !request()->isMethodSafe()) {
                $this->archived[$projectId] = $column('archived');
            }
            if (null !== $found) {
                $this->policies[$projectId] = self::read($column('access'));
            }
            $this->known[$key] = $found?->role;
        }

        return $this->known[$key];
    }

    /**
     * Whether somebody may do something in a project, by the table of {@see Access}.
     */
    public function may(User $user, string $projectId, Permission $permission): bool
    {
        $role = $this->role($user, $projectId);

        return null !== $role && !$this->lacksFactor($user, $projectId) && Access::allows($role, $permission, $this->policies($projectId));
    }

    /**
     * Whether the project lets nobody in without a second factor, and the person has none.
     */
    public function lacksFactor(User $user, string $projectId): bool
    {
        return $this->policies($projectId)->secondFactorRequired && null === $user->totp_confirmed_at;
    }

    /**
     * What a project says of who may what.
     */
    public function policies(string $projectId): AccessPolicies
    {
        return $this->policies[$projectId] ??= self::read((string) DB::table('projects')->where('id', $projectId)->value('access'));
    }

    private static function read(?string $json): AccessPolicies
    {
        $stored = null === $json || '' === $json ? [] : json_decode($json, true, 4, \JSON_THROW_ON_ERROR);

        return AccessPolicies::fromArray(\is_array($stored) ? $stored : []);
    }

    /**
     * What is secret in a project, as it is kept ({@see ProjectSecrets}).
     *
     * @return ?string null where nobody writes, or it was never put together
     */
    public function hidden(string $projectId): ?string
    {
        return $this->hidden[$projectId] ?? null;
    }

    /**
     * @return ?string the name of a project that is archived; null when it is not
     */
    public function archived(string $projectId): ?string
    {
        // Whoever has no part in the project any more has brought no word of it along.
        if (!\array_key_exists($projectId, $this->archived)) {
            $name = DB::table('projects')->where('id', $projectId)->whereNotNull('archived_at')->value('name');
            $this->archived[$projectId] = \is_string($name) ? $name : null;
        }

        return $this->archived[$projectId];
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
