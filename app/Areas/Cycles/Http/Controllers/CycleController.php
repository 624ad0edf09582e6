<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Areas\Cycles\Data\CycleBoard;
use LucidStep\App\Areas\Cycles\Data\CycleSummary;
use LucidStep\App\Areas\Cycles\Queries\ReadBoard;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\OpenApi\Get;

/**
 * Cycles and their entries.
 */
final readonly class CycleController
{
    public function __construct(private ReadBoard $read) {}

    #[Get('/projects/{project}/cycles', 'The cycles of a project, newest end first', CycleSummary::class, true)]
    public function index(Project $project): JsonResponse
    {
        return new JsonResponse($this->read->cycles($project, Gate::allows('lead', $project)));
    }

    #[Get('/cycles/{cycle}', 'A cycle with all its entries', CycleBoard::class)]
    public function show(Request $request, Cycle $cycle, Memberships $memberships): JsonResponse
    {
        $user = $request->user();
        $user = $user instanceof User ? $user : throw new \LogicException('Guests do not come here.');
        $role = $memberships->role($user, $cycle->project_id) ?? throw new \LogicException('The address lets strangers in.');

        return new JsonResponse($this->read->board($cycle, $user, $role));
    }
}
