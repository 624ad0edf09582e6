<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Queries;

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Areas\People\Data\DeletedProject;
use LucidStep\App\Areas\People\Data\InstallationPage;
use LucidStep\App\Areas\People\Data\InstallationPerson;
use LucidStep\App\Areas\People\Data\InstallationProject;
use LucidStep\App\Areas\People\Data\InstallationServices;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Data\Person;
use LucidStep\App\Support\Time\UtcTime;
use LucidStep\Core\Access\Role;

/**
 * Reads all projects and people of the installation, for its owners: who is in which project, and nothing of what is in one.
 */
final class ReadInstallation
{
    public function __invoke(User $owner): InstallationPage
    {
        $projects = Project::query()->whereNull('deleting_at')->get()->keyBy('id');
        $users = User::query()
            ->get(['id', 'name', 'email', 'is_owner', 'totp_confirmed_at'])
            ->keyBy('id');
        $members = Membership::query()->get(['project_id', 'user_id', 'role']);
        $by = $members->groupBy('project_id');
        $of = $members->groupBy('user_id');
        $lines = $projects->map(static function (Project $p) use ($by, $users, $owner): InstallationProject {
            $in = $by->get($p->id) ?? collect();
            $admins = $in->filter(static fn(Membership $m): bool => Role::Admin === $m->role);

            return new InstallationProject(
                $p->id,
                $p->code,
                $p->name,
                array_values($admins->map(static fn(Membership $m): string => $users[$m->user_id]->name ?? '')->sort()->all()),
                $in->count(),
                $p->archived_at?->toIso8601ZuluString(),
                $in->firstWhere('user_id', $owner->id)?->role->value,
            );
        });
        $people = $users->map(
            static fn(User $u): InstallationPerson => new InstallationPerson(
                $u->id,
                $u->name,
                $u->email,
                $u->is_owner,
                null !== $u->totp_confirmed_at,
                array_values(
                    ($of->get($u->id) ?? collect())
                        ->map(static fn(Membership $m): string => ($projects[$m->project_id]->code ?? '') . ": {$m->role->value}")
                        ->sort()
                        ->all(),
                ),
            ),
        );
        $named = static fn(InstallationProject|InstallationPerson $x): string => Str::lower($x->name);

        return new InstallationPage(
            array_values($lines->sortBy($named, \SORT_STRING)->all()),
            array_values($people->sortBy($named, \SORT_STRING)->all()),
            self::deleted(),
            InstallationServices::now(),
        );
    }

    /**
     * @return list<DeletedProject>
     */
    private static function deleted(): array
    {
        return array_values(
            DB::table('project_deletions')
                ->leftJoin('users', 'users.id', '=', 'actor_id')
                ->orderByDesc('asked_at')
                ->limit(50)
                ->get(['code', 'project_deletions.name', 'asked_at', 'done_at', 'users.id as by_id', 'users.name as by_name'])
                ->map(
                    static fn(\stdClass $d): DeletedProject => new DeletedProject(
                        $d->code,
                        $d->name,
                        null === $d->by_id ? null : new Person($d->by_id, $d->by_name),
                        (string) UtcTime::time($d->asked_at),
                        UtcTime::time($d->done_at),
                    ),
                )
                ->all(),
        );
    }
}
