<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Areas\Setup\Actions\ChangeConfiguration;
use LucidStep\App\Areas\Setup\Actions\GenerateConfigurations;
use LucidStep\App\Areas\Setup\Actions\ImportCapacity;
use LucidStep\App\Areas\Setup\Actions\SaveAxes;
use LucidStep\App\Areas\Setup\Actions\SaveCalendar;
use LucidStep\App\Areas\Setup\Actions\SaveEnvironments;
use LucidStep\App\Areas\Setup\Actions\SaveReleases;
use LucidStep\App\Areas\Setup\Data\CapacityResult;
use LucidStep\App\Areas\Setup\Data\PlanningSetup;
use LucidStep\App\Areas\Setup\Http\Requests\AxesRequest;
use LucidStep\App\Areas\Setup\Http\Requests\BuildRequest;
use LucidStep\App\Areas\Setup\Http\Requests\CalendarRequest;
use LucidStep\App\Areas\Setup\Http\Requests\CapacityImportRequest;
use LucidStep\App\Areas\Setup\Http\Requests\CapacityRequest;
use LucidStep\App\Areas\Setup\Http\Requests\ConfigurationsRequest;
use LucidStep\App\Areas\Setup\Http\Requests\EnvironmentsRequest;
use LucidStep\App\Areas\Setup\Http\Resources\AxisCheck;
use LucidStep\App\Areas\Setup\Queries\ReadPlanningSetup;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Configuration;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\Release;
use LucidStep\App\Support\Access\AllowedInArchive;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Access\ProjectLookup;
use LucidStep\App\Support\Http\Costly;
use LucidStep\App\Support\Http\NameRequest;
use LucidStep\App\Support\OpenApi\Delete;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Patch;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\App\Support\OpenApi\Put;
use LucidStep\Core\Access\Permission;

/**
 * What cycles are planned with: releases and builds, environments, axes and configurations, the calendar and people's time.
 */
final readonly class PlanningSetupController
{
    public function __construct(
        private ReadPlanningSetup $read,
        private Memberships $memberships,
        private SaveAxes $axes,
        private GenerateConfigurations $generate,
        private ChangeConfiguration $configurations,
        private SaveReleases $releases,
        private SaveCalendar $calendar,
    ) {}

    #[Get('/projects/{project}/planning-setup', 'What cycles are planned with', PlanningSetup::class)]
    public function show(Request $request, Project $project): JsonResponse
    {
        return $this->answer($request, $project);
    }

    #[Put('/projects/{project}/axes', 'Replace axes, values and forbidden pairs', PlanningSetup::class, AxesRequest::class)]
    #[Needs(Permission::Lead)]
    public function axes(AxesRequest $request, Project $project): JsonResponse
    {
        Gate::authorize('lead', $project);
        [$axes, $forbidden] = self::axesOf($request);
        $this->axes->write($project, $axes, $forbidden, $request->validated('seen'));

        return $this->answer($request, $project);
    }

    #[Costly]
    #[Post('/projects/{project}/axis-checks', 'What axes give, by all combinations and by pairs', AxisCheck::class, AxesRequest::class)]
    #[AllowedInArchive]
    #[Needs(Permission::Read)]
    public function check(AxesRequest $request, Project $project): JsonResponse
    {
        [$axes, $forbidden] = self::axesOf($request);
        $said = $this->axes->check($project, $axes, $forbidden);

        return new JsonResponse(
            new AxisCheck(
                $said['all'],
                $said['all_more'],
                \count($said['pairs']),
                array_map(static fn(array $row): string => implode(', ', $row), \array_slice($said['pairs'], 0, 100)),
                $said['impossible'],
                $said['untested'],
            ),
        );
    }

    #[Costly]
    #[
        Post(
            '/projects/{project}/configurations',
            'Make configurations of the axes',
            PlanningSetup::class,
            ConfigurationsRequest::class,
            201,
        ),
    ]
    #[Needs(Permission::Lead)]
    public function make(ConfigurationsRequest $request, Project $project): JsonResponse
    {
        Gate::authorize('lead', $project);
        /** @var 'all'|'pairs'|'one' $how */
        $how = $request->string('how')->toString();
        ($this->generate)(
            $project,
            $how,
            array_filter((array) $request->validated('values'), is_string(...)),
            $request->string('name')->toString(),
        );

        return $this->answer($request, $project, 201);
    }

    #[Patch('/configurations/{configuration}', 'Give a configuration another name', PlanningSetup::class, NameRequest::class)]
    #[Needs(Permission::Lead)]
    public function rename(NameRequest $request, Configuration $configuration): JsonResponse
    {
        $project = $this->lead($configuration->project_id);
        $this->configurations->rename($configuration, $request->string('name')->toString());

        return $this->answer($request, $project);
    }

    #[Delete('/configurations/{configuration}', 'Take a configuration out that nothing uses', PlanningSetup::class)]
    #[Needs(Permission::Lead)]
    public function remove(Request $request, Configuration $configuration): JsonResponse
    {
        $project = $this->lead($configuration->project_id);
        $this->configurations->remove($configuration);

        return $this->answer($request, $project);
    }

    #[Post('/projects/{project}/releases', 'Make a release', PlanningSetup::class, NameRequest::class, 201)]
    #[Needs(Permission::Lead)]
    public function release(NameRequest $request, Project $project): JsonResponse
    {
        Gate::authorize('lead', $project);
        $this->releases->release($project, $request->string('name')->toString());

        return $this->answer($request, $project, 201);
    }

    #[Patch('/releases/{release}', 'Give a release another name', PlanningSetup::class, NameRequest::class)]
    #[Needs(Permission::Lead)]
    public function renameRelease(NameRequest $request, Release $release): JsonResponse
    {
        $project = $this->lead($release->project_id);
        $this->releases->release($project, $request->string('name')->toString(), $release);

        return $this->answer($request, $project);
    }

    #[Delete('/releases/{release}', 'Take a release out that has no builds', PlanningSetup::class)]
    #[Needs(Permission::Lead)]
    public function removeRelease(Request $request, Release $release): JsonResponse
    {
        $project = $this->lead($release->project_id);
        $this->releases->removeRelease($release);

        return $this->answer($request, $project);
    }

    #[Post('/projects/{project}/builds', 'Make a build', PlanningSetup::class, BuildRequest::class, 201)]
    #[Needs(Permission::Lead)]
    public function build(BuildRequest $request, Project $project): JsonResponse
    {
        Gate::authorize('lead', $project);
        $this->releases->build($project, $request->string('name')->toString(), $request->validated('release_id'));

        return $this->answer($request, $project, 201);
    }

    #[Patch('/builds/{build}', 'Change a build', PlanningSetup::class, BuildRequest::class)]
    #[Needs(Permission::Lead)]
    public function changeBuild(BuildRequest $request, Build $build): JsonResponse
    {
        $project = $this->lead($build->project_id);
        $this->releases->build($project, $request->string('name')->toString(), $request->validated('release_id'), $build);

        return $this->answer($request, $project);
    }

    #[Delete('/builds/{build}', 'Take a build out that nothing was tested on', PlanningSetup::class)]
    #[Needs(Permission::Lead)]
    public function removeBuild(Request $request, Build $build): JsonResponse
    {
        $project = $this->lead($build->project_id);
        $this->releases->removeBuild($build);

        return $this->answer($request, $project);
    }

    #[Put('/projects/{project}/environments', 'Replace the environments', PlanningSetup::class, EnvironmentsRequest::class)]
    #[Needs(Permission::Lead)]
    public function environments(EnvironmentsRequest $request, Project $project, SaveEnvironments $save): JsonResponse
    {
        Gate::authorize('lead', $project);
        $save($project, $request->environments(), $request->validated('seen'));

        return $this->answer($request, $project);
    }

    #[Put('/projects/{project}/calendar', 'Write the project\'s calendar', PlanningSetup::class, CalendarRequest::class)]
    #[Needs(Permission::Lead)]
    public function calendar(CalendarRequest $request, Project $project): JsonResponse
    {
        Gate::authorize('lead', $project);
        $this->calendar->write(
            $project,
            array_values(array_map(intval(...), (array) $request->validated('working_days'))),
            array_values((array) $request->validated('holidays')),
            $request->string('time_zone')->toString(),
            $request->validated('seen'),
        );

        return $this->answer($request, $project);
    }

    #[
        Put(
            '/projects/{project}/people/{person}/capacity',
            'How much a person can walk, and when not',
            PlanningSetup::class,
            CapacityRequest::class,
        ),
    ]
    #[Needs(Permission::Read)]
    public function capacity(CapacityRequest $request, Project $project, string $person): JsonResponse
    {
        $member = $this->memberships->of($project->id, $person);
        if ($member->user_id !== $request->person()->id) {
            Gate::authorize('lead', $project);
        }
        $this->calendar->person(
            $member,
            (int) $request->validated('minutes_per_day'),
            array_values((array) $request->validated('days_off')),
            $request->validated('seen'),
        );

        return $this->answer($request, $project);
    }

    #[
        Post(
            '/projects/{project}/capacity-imports',
            "Take people's time from a list, a line each",
            CapacityResult::class,
            CapacityImportRequest::class,
            list: true,
        ),
    ]
    #[Needs(Permission::Lead)]
    public function importCapacity(CapacityImportRequest $request, Project $project, ImportCapacity $import): JsonResponse
    {
        Gate::authorize('lead', $project);

        return new JsonResponse($import($project, (string) $request->validated('text')));
    }

    private function answer(Request $request, Project $project, int $status = 200): JsonResponse
    {
        return new JsonResponse(
            ($this->read)($project->refresh(), $this->memberships->sure($this->memberships->person($request), $project->id)->leads()),
            $status,
        );
    }

    private function lead(string $project): Project
    {
        $found = ProjectLookup::find($project);
        Gate::authorize('lead', $found);

        return $found;
    }

    /**
     * @return array{list<array{id?: ?string, name: string, values: list<array{id?: ?string, name: string}>}>,
     *     list<array{axis: string, value: string, other_axis: string, other_value: string}>}
     */
    private static function axesOf(AxesRequest $request): array
    {
        /** @var list<array{id?: ?string, name: string, values: list<array{id?: ?string, name: string}>}> $axes */
        $axes = array_values((array) $request->validated('axes'));
        /** @var list<array{axis: string, value: string, other_axis: string, other_value: string}> $forbidden */
        $forbidden = array_values((array) $request->validated('forbidden'));

        return [$axes, $forbidden];
    }
}
