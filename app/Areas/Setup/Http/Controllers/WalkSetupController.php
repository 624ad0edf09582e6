<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Areas\Evidence\Data\StorageState;
use LucidStep\App\Areas\Evidence\Queries\StorageUse;
use LucidStep\App\Areas\Setup\Actions\SaveLists;
use LucidStep\App\Areas\Setup\Actions\SavePolicies;
use LucidStep\App\Areas\Setup\Actions\SaveStorageLimits;
use LucidStep\App\Areas\Setup\Data\ListItemLine;
use LucidStep\App\Areas\Setup\Data\PolicySet;
use LucidStep\App\Areas\Setup\Data\WalkSetup;
use LucidStep\App\Areas\Setup\Http\Requests\ListRequest;
use LucidStep\App\Areas\Setup\Http\Requests\PoliciesRequest;
use LucidStep\App\Areas\Setup\Http\Requests\StorageRequest;
use LucidStep\App\Areas\Setup\Queries\HandsetAddresses;
use LucidStep\App\Areas\Setup\Queries\ProjectLists;
use LucidStep\App\Areas\Setup\Queries\SetupState;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Put;
use LucidStep\App\Support\Revisions\Seen;
use LucidStep\Core\Access\Permission;
use LucidStep\Core\Verdict\Policies;

/**
 * How a project walks: its policies, the reasons behind verdicts, and how long it keeps evidence.
 */
final readonly class WalkSetupController
{
    public function __construct(private SaveLists $lists) {}

    #[Get('/projects/{project}/walk-setup', 'Policies, reasons and storage', WalkSetup::class)]
    public function show(Project $project): JsonResponse
    {
        return new JsonResponse($this->setup($project));
    }

    #[Put('/projects/{project}/policies', 'Change policies', WalkSetup::class, PoliciesRequest::class)]
    #[Needs(Permission::Lead)]
    public function policies(PoliciesRequest $request, Project $project, SavePolicies $save): JsonResponse
    {
        Gate::authorize('lead', $project);
        $save($project, (array) $request->validated());

        return new JsonResponse($this->setup($project));
    }

    #[Put('/projects/{project}/storage', 'How much evidence is kept, and for how long', WalkSetup::class, StorageRequest::class)]
    #[Needs(Permission::Administer)]
    public function storage(StorageRequest $request, Project $project, SaveStorageLimits $save): JsonResponse
    {
        Gate::authorize('administer', $project);
        $save($project, $request->integer('limit_mb') ?: null, $request->integer('retention_days') ?: null, $request->validated('seen'));

        return new JsonResponse($this->setup($project));
    }

    #[Put('/projects/{project}/lists/reasons-pass', 'Replace the reasons behind a pass', WalkSetup::class, ListRequest::class)]
    #[Needs(Permission::Lead)]
    public function reasonsPass(ListRequest $request, Project $project): JsonResponse
    {
        return $this->write($request, $project, 'reason_pass');
    }

    #[Put('/projects/{project}/lists/reasons-fail', 'Replace the reasons behind a fail', WalkSetup::class, ListRequest::class)]
    #[Needs(Permission::Lead)]
    public function reasonsFail(ListRequest $request, Project $project): JsonResponse
    {
        return $this->write($request, $project, 'reason_fail');
    }

    #[Put('/projects/{project}/lists/reasons-blocked', 'Replace the reasons behind a block', WalkSetup::class, ListRequest::class)]
    #[Needs(Permission::Lead)]
    public function reasonsBlocked(ListRequest $request, Project $project): JsonResponse
    {
        return $this->write($request, $project, 'reason_blocked');
    }

    #[
        Put(
            '/projects/{project}/lists/reasons-not-applicable',
            'Replace the reasons behind not applicable',
            WalkSetup::class,
            ListRequest::class,
        ),
    ]
    #[Needs(Permission::Lead)]
    public function reasonsNotApplicable(ListRequest $request, Project $project): JsonResponse
    {
        return $this->write($request, $project, 'reason_not_applicable');
    }

    /**
     * @param  'reason_pass'|'reason_fail'|'reason_blocked'|'reason_not_applicable'  $list
     */
    private function write(ListRequest $request, Project $project, string $list): JsonResponse
    {
        Gate::authorize('lead', $project);
        $this->lists->items(
            $project,
            $list,
            array_values(
                array_map(
                    static fn(array $i): array => ['value' => $i['value'] ?? null, 'name' => (string) ($i['name'] ?? ''), 'weight' => null],
                    (array) $request->validated('items'),
                ),
            ),
            $request->validated('seen'),
        );

        return new JsonResponse($this->setup($project));
    }

    private function setup(Project $project): WalkSetup
    {
        $lists = new ProjectLists($project);
        $line = static fn(array $i): ListItemLine => new ListItemLine($i['value'], $i['name'], $i['weight'], 0);

        return new WalkSetup(
            PolicySet::from(Policies::fromArray($project->policies)),
            array_map($line, $lists->items('reason_pass')),
            array_map($line, $lists->items('reason_fail')),
            array_map($line, $lists->items('reason_blocked')),
            array_map($line, $lists->items('reason_not_applicable')),
            new StorageState(
                StorageUse::bytes($project->id),
                StorageUse::files($project->id),
                $project->storage_limit_mb,
                $project->retention_days,
            ),
            HandsetAddresses::of($project),
            Gate::allows('lead', $project),
            Gate::allows('administer', $project),
            [
                'reasons-pass' => Seen::of($lists->items('reason_pass')),
                'reasons-fail' => Seen::of($lists->items('reason_fail')),
                'reasons-blocked' => Seen::of($lists->items('reason_blocked')),
                'reasons-not-applicable' => Seen::of($lists->items('reason_not_applicable')),
                'storage' => Seen::of(SetupState::storage($project)),
            ],
        );
    }
}
