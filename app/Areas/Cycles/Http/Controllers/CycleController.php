<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Areas\Cycles\Data\CycleBoard;
use LucidStep\App\Areas\Cycles\Data\CycleSummary;
use LucidStep\App\Areas\Cycles\Data\EntryChoice;
use LucidStep\App\Areas\Cycles\Data\EntryLine;
use LucidStep\App\Areas\Cycles\Data\EntryPage;
use LucidStep\App\Areas\Cycles\Http\Requests\EntryFilterQuery;
use LucidStep\App\Areas\Cycles\Queries\ListEntries;
use LucidStep\App\Areas\Cycles\Queries\ReadBoard;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Project;
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

    #[Get('/cycles/{cycle}', 'A cycle as its board shows it', CycleBoard::class)]
    public function show(Request $request, Cycle $cycle, Memberships $memberships): JsonResponse
    {
        $user = $memberships->person($request);

        return new JsonResponse($this->read->board($cycle, $user, $memberships->sure($user, $cycle->project_id)));
    }

    #[
        Get(
            '/cycles/{cycle}/entries',
            'Entries of a cycle, by windows',
            EntryPage::class,
            query: [
                ...EntryFilterQuery::DESCRIBED,
                'sort' => EntryFilterQuery::SORT,
                'after' => 'Where the window before ended',
                'size' => 'Of the window, at most 500',
            ],
        ),
    ]
    public function entries(Request $request, Cycle $cycle, ListEntries $list): JsonResponse
    {
        return new JsonResponse(
            $list(
                $cycle,
                EntryFilterQuery::of($request),
                $request->query->getString('sort'),
                $request->query->getString('after'),
                $request->query->getInt('size', ListEntries::PAGE),
            ),
        );
    }

    #[
        Get(
            '/cycles/{cycle}/entry-choices',
            'All entries that fit, for choosing them together',
            EntryChoice::class,
            true,
            query: EntryFilterQuery::DESCRIBED,
        ),
    ]
    public function choices(Request $request, Cycle $cycle, ListEntries $list): JsonResponse
    {
        return new JsonResponse($list->choices($cycle, EntryFilterQuery::of($request)));
    }

    #[
        Get(
            '/cycles/{cycle}/trail',
            'My entries of a cycle, and what of nobody’s may come next',
            EntryLine::class,
            true,
            query: ['entry' => 'The entry one is on'],
        ),
    ]
    public function trail(Request $request, Cycle $cycle, ListEntries $list, Memberships $memberships): JsonResponse
    {
        return new JsonResponse($list->trail($cycle, $memberships->person($request), $request->query->getString('entry')));
    }
}
