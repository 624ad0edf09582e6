<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Queries;

use Illuminate\Support\Str;
use LucidStep\App\Areas\People\Data\OpenInvitation;
use LucidStep\App\Areas\People\Data\PeoplePage;
use LucidStep\App\Areas\People\Data\ProjectPerson;
use LucidStep\App\Models\Invitation;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\People\OpenWork;
use LucidStep\Core\Access\Role;

/**
 * Reads who has part in a project. Mail addresses and invitations are told to its admins.
 */
final readonly class ReadPeople
{
    /**
     * @param  iterable<OpenWork>  $work what people may have to do, from each area
     */
    public function __construct(private iterable $work) {}

    public function __invoke(Project $project, Role $reader): PeoplePage
    {
        $manages = Role::Admin === $reader;
        $open = [];
        foreach ($manages ? $this->work : [] as $work) {
            [$one, $many] = $work->noun();
            foreach ($work->counts($project) as $person => $count) {
                $open[$person][] = "{$count} " . (1 === $count ? $one : $many);
            }
        }
        $people = Membership::query()
            ->where('project_id', $project->id)
            ->with('user')
            ->get()
            ->sortBy(static fn(Membership $m): string => Str::lower($m->user->name), \SORT_STRING)
            ->map(
                static fn(Membership $m): ProjectPerson => new ProjectPerson(
                    $m->user_id,
                    $m->user->name,
                    $manages ? $m->user->email : null,
                    $m->role->value,
                    $open[$m->user_id] ?? [],
                ),
            );
        $invitations = $manages
            ? Invitation::open()
                ->where('project_id', $project->id)
                ->with('inviter')
                ->orderByDesc('created_at')
                ->orderBy('email')
                ->get()
                ->all()
            : [];

        return new PeoplePage(array_values($people->all()), array_values(array_map(OpenInvitation::from(...), $invitations)), $manages);
    }

    /**
     * @return int how many people of the project have no second factor
     */
    public function withoutSecondFactor(Project $project): int
    {
        return Membership::query()
            ->where('project_id', $project->id)
            ->whereHas('user', static fn($u) => $u->whereNull('totp_confirmed_at'))
            ->count();
    }
}
