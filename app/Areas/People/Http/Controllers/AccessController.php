<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Areas\People\Actions\SaveAccess;
use LucidStep\App\Areas\People\Data\AccessPage;
use LucidStep\App\Areas\People\Http\Requests\AccessRequest;
use LucidStep\App\Areas\People\Queries\ReadPeople;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Patch;
use LucidStep\Core\Access\AccessPolicies;
use LucidStep\Core\Access\Permission;

/**
 * Who may what in a project.
 */
final readonly class AccessController
{
    public function __construct(private ReadPeople $people, private Memberships $memberships) {}

    #[Get('/projects/{project}/access', 'Who may what in a project', AccessPage::class)]
    public function show(Request $request, Project $project): JsonResponse
    {
        return $this->answer($request, $project);
    }

    #[Patch('/projects/{project}/access', 'Change what a project says of who may what', AccessPage::class, AccessRequest::class)]
    #[Needs(Permission::Administer)]
    public function update(AccessRequest $request, Project $project, SaveAccess $save): JsonResponse
    {
        Gate::authorize('administer', $project);
        $save($project, $request->person(), (array) $request->validated());

        return $this->answer($request, $project->refresh());
    }

    private function answer(Request $request, Project $project): JsonResponse
    {
        return new JsonResponse(
            AccessPage::of(
                AccessPolicies::fromArray($project->access),
                $this->people->withoutSecondFactor($project),
                $this->memberships->may($this->memberships->person($request), $project->id, Permission::Administer),
            ),
        );
    }
}
