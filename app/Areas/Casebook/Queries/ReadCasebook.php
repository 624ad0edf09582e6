<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Casebook\Actions\Suites;
use LucidStep\App\Areas\Casebook\Data\CasebookFrame;
use LucidStep\App\Areas\Casebook\Data\FolderLine;
use LucidStep\App\Areas\Casebook\Data\RequirementLine;
use LucidStep\App\Areas\People\Data\ProjectSummary;
use LucidStep\App\Areas\Setup\Data\CustomFieldLine;
use LucidStep\App\Areas\Setup\Data\ListItemLine;
use LucidStep\App\Areas\Setup\Queries\ProjectLists;
use LucidStep\App\Models\Folder;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\MessageState;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\Data\Person;
use LucidStep\App\Support\Filters\SavedFilterLine;
use LucidStep\App\Support\Filters\SavedFilters;
use LucidStep\Core\Access\Access;
use LucidStep\Core\Access\AccessPolicies;
use LucidStep\Core\Access\Permission;
use LucidStep\Core\Access\Role;
use LucidStep\Core\Casebook\CustomField;

/**
 * Reads what the casebook is made of beside its cases.
 */
final readonly class ReadCasebook
{
    public function __construct(private RoutineAndTableQueries $shelf, private Suites $suites, private Memberships $memberships) {}

    /**
     * @return list<FolderLine> in order of position
     */
    public function folders(Project $project): array
    {
        $counts = DB::table('cases')
            ->where('project_id', $project->id)
            ->whereNull('binned_at')
            ->groupBy('folder_id')
            ->get(['folder_id', DB::raw('count(*) as n')])
            ->pluck('n', 'folder_id');

        return array_values(
            Folder::query()
                ->where('project_id', $project->id)
                ->whereNull('binned_at')
                ->orderBy('position')
                ->get()
                ->map(static fn(Folder $f): FolderLine => FolderLine::of($f, (int) ($counts[$f->id] ?? 0)))
                ->all(),
        );
    }

    public function frame(Project $project, User $user, Role $role): CasebookFrame
    {
        $folders = $this->folders($project);
        $counts = DB::table('cases')
            ->where('project_id', $project->id)
            ->selectRaw('count(*) filter (where binned_at is null) as live, count(*) filter (where binned_at is not null) as binned')
            ->first();
        $people = Membership::query()
            ->where('project_id', $project->id)
            ->with('user')
            ->get()
            ->map(static fn(Membership $m): Person => Person::from($m->user))
            ->sortBy('name');
        $others = Membership::query()->where('user_id', $user->id)->where('project_id', '<>', $project->id)->get();
        $projects = Project::query()
            ->whereIn('id', $others->pluck('project_id'))
            ->orderBy('name')
            ->get()
            ->filter(
                static fn(Project $p): bool => Access::allows(
                    $others->firstWhere('project_id', $p->id)?->role,
                    Permission::WriteCases,
                    AccessPolicies::fromArray($p->access),
                ),
            )
            ->map(
                static fn(Project $p): ProjectSummary => ProjectSummary::from(
                    $p,
                    $others->firstWhere('project_id', $p->id)->role ?? Role::Reader,
                    null !== $user->totp_confirmed_at,
                ),
            );
        $lists = new ProjectLists($project);
        $item = static fn(array $i): ListItemLine => new ListItemLine($i['value'], $i['name'], $i['weight'], 0);

        return new CasebookFrame(
            $folders,
            array_map($item, $lists->items('type')),
            array_map($item, $lists->items('priority')),
            $lists->usualType(),
            $lists->usualPriority(),
            array_values(DB::table('labels')->where('project_id', $project->id)->orderByRaw('lower(name)')->pluck('name')->all()),
            array_values(
                array_map(
                    static fn(CustomField $f): CustomFieldLine => new CustomFieldLine(
                        $f->id,
                        $f->name,
                        $f->kind,
                        $f->choices,
                        $f->required,
                        0,
                    ),
                    $lists->fields(),
                ),
            ),
            $this->shelf->routines($project),
            $this->shelf->tables($project),
            $this->suites->all($project),
            $this->filters($project, $user),
            $this->requirements($project),
            array_values($people->all()),
            array_values($projects->all()),
            (int) ($counts->live ?? 0),
            (int) ($counts->binned ?? 0),
            DB::table('case_messages')->where('project_id', $project->id)->where('state', MessageState::Open)->count(),
            $this->memberships->may($user, $project->id, Permission::WriteCases),
            $role->leads(),
        );
    }

    /**
     * @return list<SavedFilterLine> one's own and those that others share
     */
    public function filters(Project $project, User $user): array
    {
        return SavedFilters::of($project, $user, 'case');
    }

    /**
     * @return list<RequirementLine>
     */
    public function requirements(Project $project): array
    {
        return array_values(
            DB::table('requirements')
                ->where('project_id', $project->id)
                ->whereNull('dropped_at')
                ->orderBy('number')
                ->selectRaw(
                    'id, key, title, parent_id, (select count(*) from case_requirements r join cases c on c.id = r.case_id ' .
                        'and c.binned_at is null where r.requirement_id = requirements.id) as n',
                )
                ->get()
                ->map(static fn(object $r): RequirementLine => new RequirementLine($r->id, $r->key, $r->title, $r->parent_id, (int) $r->n))
                ->all(),
        );
    }
}
