<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Str;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Cycles\Data\Comparison;
use LucidStep\App\Areas\Cycles\Queries\Compare;
use LucidStep\App\Areas\Cycles\Queries\ReadPlan;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\Access\PlannedCycles;
use LucidStep\App\Support\OpenApi\Get;

/**
 * Two cycles or builds beside each other.
 */
final readonly class ComparisonController
{
    public function __construct(private ReadPlan $read, private Memberships $memberships) {}

    #[
        Get(
            '/cycles/{cycle}/comparison',
            'A cycle beside another, the earlier first',
            Comparison::class,
            query: ['with' => 'The other cycle, by key or id'],
        ),
    ]
    public function comparison(Request $request, Cycle $cycle, Compare $compare): JsonResponse
    {
        $with = $request->query->getString('with');
        $leads = $this->memberships->sure($this->memberships->person($request), $cycle->project_id)->leads();
        $other = $this->read->cycle($cycle->project_id, $with);
        if (null === $other || (!$leads && PlannedCycles::has($other))) {
            throw ValidationException::withMessages(['with' => 'Choose another cycle of this project.']);
        }

        return new JsonResponse($compare->cycles($cycle, $other));
    }

    #[
        Get(
            '/projects/{project}/build-comparison',
            'What was found on a build beside what was found on another, the earlier first',
            Comparison::class,
            query: ['one' => 'A build, by id', 'other' => 'Another'],
        ),
    ]
    public function builds(Request $request, Project $project, Compare $compare): JsonResponse
    {
        $build = static fn(string $name): Build => Build::query()
            ->where('project_id', $project->id)
            ->find(Str::isUuid($request->query->getString($name)) ? $request->query->getString($name) : null) ??
            throw ValidationException::withMessages([$name => 'Choose a build of this project.']);

        return new JsonResponse($compare->builds($build('one'), $build('other')));
    }
}
