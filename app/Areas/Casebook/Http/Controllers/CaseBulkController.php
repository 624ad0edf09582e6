<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Areas\Casebook\Actions\BulkEditCases;
use LucidStep\App\Areas\Casebook\Actions\UndoBulkEdit;
use LucidStep\App\Areas\Casebook\Data\BulkEditPreview;
use LucidStep\App\Areas\Casebook\Data\BulkEditResult;
use LucidStep\App\Areas\Casebook\Http\Requests\BulkEditCasesRequest;
use LucidStep\App\Areas\Casebook\Queries\CaseFilter;
use LucidStep\App\Models\BulkAct;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Access\AllowedInArchive;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Access\ProjectLookup;
use LucidStep\App\Support\Http\Costly;
use LucidStep\App\Support\Http\StampRequest;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\Core\Access\Permission;
use LucidStep\Core\Access\Role;

/**
 * Acts on many cases.
 *
 * @phpstan-import-type Changes from BulkEditCases
 */
final class CaseBulkController
{
    public function __construct(
        private readonly Memberships $memberships,
        private readonly BulkEditCases $acts,
        private readonly UndoBulkEdit $undo,
    ) {}

    #[Costly]
    #[Post('/projects/{project}/case-previews', 'What an act on many cases would do', BulkEditPreview::class, BulkEditCasesRequest::class)]
    #[AllowedInArchive]
    #[Needs(Permission::Read)]
    public function preview(BulkEditCasesRequest $request, Project $project): JsonResponse
    {
        return new JsonResponse($this->acts->preview($project, ...$this->arguments($request, $project)));
    }

    #[
        Post(
            '/projects/{project}/case-acts',
            'Edit, move, copy, bin or restore many cases',
            BulkEditResult::class,
            BulkEditCasesRequest::class,
        ),
    ]
    #[Needs(Permission::WriteCases)]
    public function store(BulkEditCasesRequest $request, Project $project): JsonResponse
    {
        $arguments = $this->arguments($request, $project);
        $target = $request->validated('changes.project');
        if (\is_string($target) && $target !== $project->code) {
            Gate::authorize('writeCases', ProjectLookup::byCode($target));
        }

        return new JsonResponse($this->acts->do($project, ...$arguments));
    }

    #[Post('/case-acts/{act}/undo', 'Undo a change of many cases', BulkEditResult::class, StampRequest::class)]
    #[Needs(Permission::WriteCases)]
    public function undo(StampRequest $request, BulkAct $act): JsonResponse
    {
        $project = ProjectLookup::find($act->project_id);
        Gate::authorize($act->actor_id === $request->person()->id ? 'writeCases' : 'lead', $project);

        return new JsonResponse(($this->undo)($act, $project, $request->person()));
    }

    /**
     * @return array{user: User, role: Role,
     *     act: 'edit'|'move'|'copy'|'bin'|'restore', filter: CaseFilter, changes: Changes}
     */
    private function arguments(BulkEditCasesRequest $request, Project $project): array
    {
        Gate::authorize('writeCases', $project);
        $user = $request->person();
        /** @var 'edit'|'move'|'copy'|'bin'|'restore' $act */
        $act = $request->string('act')->toString();
        $asked = (array) $request->validated('filter');

        return [
            'user' => $user,
            'role' => $this->memberships->sure($user, $project->id),
            'act' => $act,
            'filter' => CaseFilter::from($project, 'restore' === $act ? [...$asked, 'bin' => 'yes'] : $asked, $user->id),
            'changes' => $request->changes(),
        ];
    }
}
