<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Actions;

use Illuminate\Database\Eloquent\ModelNotFoundException;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\People\Exceptions\LastOne;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\People\OpenWork;
use LucidStep\App\Support\Transactions;
use LucidStep\Core\Access\Role;

/**
 * Who is what in a project: another role, and leaving, with what is open handed on in the same step.
 */
final readonly class ManagePeople
{
    /**
     * @param  iterable<OpenWork>  $work what people may have to do, from each area
     */
    public function __construct(private iterable $work) {}

    /**
     * @throws LastOne when nobody would be admin any more
     * @throws ModelNotFoundException when the person has no part in the project
     * @throws ValidationException when they have entries that only who walks can have
     */
    public function changeRole(Project $project, string $person, Role $role): void
    {
        Transactions::run(function () use ($project, $person, $role): void {
            $member = self::lock($project, $person);
            if (Role::Admin === $member->role && Role::Admin !== $role) {
                self::sureAnotherAdmin($project, $member);
            }
            foreach ($role->records() ? [] : $this->work as $work) {
                $count = $work->needsTester() ? $work->counts($project)[$person] ?? 0 : 0;
                if ($count > 0) {
                    throw ValidationException::withMessages([
                        'role' => \sprintf(
                            '%s has %d %s, which a %s cannot have. Hand them on first.',
                            $member->user->name,
                            $count,
                            $work->noun()[1 === $count ? 0 : 1],
                            $role->value,
                        ),
                    ]);
                }
            }
            $member->update(['role' => $role]);
        });
    }

    /**
     * Takes somebody out of the project. What they did stays under their name.
     *
     * @param  ?string  $to who gets what is open of theirs; null: nobody
     *
     * @throws LastOne when nobody would be admin any more
     * @throws ModelNotFoundException when the person has no part in the project
     * @throws ValidationException when whoever is to get it cannot
     */
    public function leave(Project $project, string $person, ?string $to, User $by): void
    {
        Transactions::run(function () use ($project, $person, $to, $by): void {
            $member = self::lock($project, $person);
            if (Role::Admin === $member->role) {
                self::sureAnotherAdmin($project, $member);
            }
            $heir = null === $to ? null : $this->heir($project, $member, $to);
            foreach ($this->work as $work) {
                $work->handOver($project, $member->user, $heir, $by);
            }
            $member->delete();
        });
    }

    private function heir(Project $project, Membership $member, string $to): User
    {
        $heir = Membership::query()
            ->where('project_id', $project->id)
            ->where('user_id', $to)
            ->where('user_id', '<>', $member->user_id)
            ->with('user')
            ->first();
        $problem = match (true) {
            null === $heir => 'Choose somebody else who has part in the project.',
            $heir->role->records() => null,
            default => $this->tooMuch($project, $member, $heir),
        };
        if (null === $heir || null !== $problem) {
            throw ValidationException::withMessages(['to' => (string) $problem]);
        }

        return $heir->user;
    }

    private function tooMuch(Project $project, Membership $member, Membership $heir): ?string
    {
        foreach ($this->work as $work) {
            if ($work->needsTester() && ($work->counts($project)[$member->user_id] ?? 0) > 0) {
                return "{$heir->user->name} is {$heir->role->value} here and cannot have {$work->noun()[1]}. Choose somebody who walks.";
            }
        }

        return null;
    }

    /**
     * All of the project are locked, so that two admins do not leave at the same moment.
     */
    private static function lock(Project $project, string $person): Membership
    {
        $members = Membership::query()->where('project_id', $project->id)->orderBy('id')->lockForUpdate()->with('user')->get();

        return $members->firstWhere('user_id', Str::lower($person)) ?? throw new ModelNotFoundException();
    }

    private static function sureAnotherAdmin(Project $project, Membership $member): void
    {
        $others = DB::table('memberships')
            ->where('project_id', $project->id)
            ->where('role', Role::Admin->value)
            ->where('user_id', '<>', $member->user_id);
        throw_if(!$others->exists(), LastOne::admin($member->user->name));
    }
}
