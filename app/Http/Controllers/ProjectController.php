<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Actions\Today\ReadChanges;
use LucidStep\App\Http\Docs\Get;
use LucidStep\App\Http\Resources\ChangeFeed;
use LucidStep\App\Http\Resources\GoToItem;
use LucidStep\App\Http\Resources\GoToList;
use LucidStep\App\Http\Resources\Named;
use LucidStep\App\Http\Resources\Person;
use LucidStep\App\Http\Resources\ProjectPage;
use LucidStep\App\Http\Resources\ProjectSummary;
use LucidStep\App\Http\Resources\SessionState;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\Role;
use LucidStep\App\Models\User;
use LucidStep\App\Policies\Memberships;

/**
 * Projects, and what changed in them.
 */
final class ProjectController
{
    #[Get('/projects', 'The projects one has a part in', ProjectSummary::class, true)]
    public function index(Request $request): JsonResponse
    {
        return new JsonResponse(SessionState::from($this->user($request))->projects);
    }

    #[Get('/projects/{project}', 'A project with its builds and people', ProjectPage::class)]
    public function show(Request $request, Project $project, Memberships $memberships): JsonResponse
    {
        $role = $this->role($request, $project, $memberships);
        $people = Membership::query()->where('project_id', $project->id)->with('user')->get()->map(static fn (Membership $m): Person => Person::from($m->user))->sortBy('name');
        $builds = Build::query()->where('project_id', $project->id)->orderByDesc('position')->get()->map(static fn (Build $b): Named => Named::from($b));

        return new JsonResponse(new ProjectPage(ProjectSummary::from($project, $role), array_values($builds->all()), array_values($people->all())));
    }

    #[Get('/projects/{project}/changes', 'What changed since a place in the feed', ChangeFeed::class, query: ['after' => 'The cursor of the last answer; without it only the place now is told'])]
    public function changes(Request $request, Project $project, ReadChanges $read): Response|JsonResponse
    {
        $feed = $read($project, $request->query->getString('after') ?: null);

        return null === $feed ? new Response('', 304) : new JsonResponse($feed);
    }

    #[Get('/projects/{project}/go-to', 'Cases, cycles and defects that fit some words or a key', GoToList::class, query: ['q' => 'The words'])]
    public function goTo(Request $request, Project $project): JsonResponse
    {
        $words = trim(mb_substr($request->query->getString('q'), 0, 100));
        if ('' === $words) {
            return new JsonResponse(new GoToList([]));
        }
        $like = '%'.addcslashes($words, '%_\\').'%';
        $items = [];
        $leads = Gate::allows('lead', $project);
        foreach (['case' => ['cases', 'title'], 'cycle' => ['cycles', 'name'], 'defect' => ['defects', 'title']] as $kind => [$table, $column]) {
            $rows = DB::table($table)->where('project_id', $project->id)->when('case' === $kind, static fn ($q) => $q->whereNull('binned_at'))
                ->when('cycle' === $kind && !$leads, static fn ($q) => $q->whereNotIn('state', ['draft', 'in_review']))
                ->where(static fn ($q) => $q->where($column, 'ilike', $like)->orWhere('key', 'ilike', $like))
                ->orderBy('number')->limit(6)->get(['key', "{$column} as title"]);
            foreach ($rows as $row) {
                $items[] = new GoToItem($kind, $row->key, $row->title);
            }
        }

        return new JsonResponse(new GoToList($items));
    }

    private function role(Request $request, Project $project, Memberships $memberships): Role
    {
        return $memberships->role($this->user($request), $project->id) ?? throw new \LogicException('The address lets strangers in.');
    }

    private function user(Request $request): User
    {
        $user = $request->user();

        return $user instanceof User ? $user : throw new \LogicException('Guests do not come here.');
    }
}
