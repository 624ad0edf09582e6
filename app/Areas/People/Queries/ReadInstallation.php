<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Queries;

use Illuminate\Support\Str;
use LucidStep\App\Areas\People\Data\InstallationPage;
use LucidStep\App\Areas\People\Data\InstallationPerson;
use LucidStep\App\Areas\People\Data\InstallationProject;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;

/**
 * Reads all projects and people of the installation, for its owners: who is in which project, and nothing of what is in one.
 */
final class ReadInstallation
{
    public function __invoke(User $owner): InstallationPage
    {
        $projects = Project::query()->get()->keyBy('id');
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
        );
    }
}
