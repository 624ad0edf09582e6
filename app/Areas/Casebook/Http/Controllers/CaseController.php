<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Gate;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Areas\Casebook\Actions\CaseNeeds;
use LucidStep\App\Areas\Casebook\Actions\RecordPresence;
use LucidStep\App\Areas\Casebook\Actions\SaveCase;
use LucidStep\App\Areas\Casebook\Actions\SaveRoutine;
use LucidStep\App\Areas\Casebook\Data\CasebookFrame;
use LucidStep\App\Areas\Casebook\Data\CaseCheck;
use LucidStep\App\Areas\Casebook\Data\CaseComparison;
use LucidStep\App\Areas\Casebook\Data\CaseCounts;
use LucidStep\App\Areas\Casebook\Data\CaseDetail;
use LucidStep\App\Areas\Casebook\Data\CaseHistory;
use LucidStep\App\Areas\Casebook\Data\CaseMerge;
use LucidStep\App\Areas\Casebook\Data\CaseNeed;
use LucidStep\App\Areas\Casebook\Data\CasePage;
use LucidStep\App\Areas\Casebook\Data\CaseResult;
use LucidStep\App\Areas\Casebook\Data\CaseSaved;
use LucidStep\App\Areas\Casebook\Data\FolderLine;
use LucidStep\App\Areas\Casebook\Data\RoutineDetail;
use LucidStep\App\Areas\Casebook\Http\Requests\CaseCheckRequest;
use LucidStep\App\Areas\Casebook\Http\Requests\CaseNeedsRequest;
use LucidStep\App\Areas\Casebook\Http\Requests\CaseRequest;
use LucidStep\App\Areas\Casebook\Http\Requests\ExtractRequest;
use LucidStep\App\Areas\Casebook\Http\Requests\ReviewRequest;
use LucidStep\App\Areas\Casebook\Http\Requests\VersionRequest;
use LucidStep\App\Areas\Casebook\Http\Resources\Presence;
use LucidStep\App\Areas\Casebook\Queries\CaseFilter;
use LucidStep\App\Areas\Casebook\Queries\CheckCase;
use LucidStep\App\Areas\Casebook\Queries\CountCases;
use LucidStep\App\Areas\Casebook\Queries\ListCases;
use LucidStep\App\Areas\Casebook\Queries\ReadCase;
use LucidStep\App\Areas\Casebook\Queries\ReadCasebook;
use LucidStep\App\Areas\Casebook\Queries\RoutineAndTableQueries;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Support\Access\AllowedInArchive;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Http\StampRequest;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\App\Support\OpenApi\Put;
use LucidStep\Core\Access\Permission;
use LucidStep\Core\Casebook\CaseText;
use LucidStep\Core\Casebook\ReviewAct;

/**
 * Cases: finding, reading and writing them.
 */
final class CaseController
{
    public function __construct(private readonly Memberships $memberships) {}

    #[Get('/projects/{project}/casebook', 'What the casebook is made of beside its cases', CasebookFrame::class)]
    public function frame(Request $request, Project $project, ReadCasebook $read): JsonResponse
    {
        $user = $this->memberships->person($request);

        return new JsonResponse($read->frame($project, $user, $this->memberships->sure($user, $project->id)));
    }

    #[Get('/projects/{project}/folders', 'The folders of the casebook', FolderLine::class, true)]
    public function folders(Project $project, ReadCasebook $read): JsonResponse
    {
        return new JsonResponse($read->folders($project));
    }

    #[
        Get(
            '/projects/{project}/cases',
            'Cases by filter, in a chosen order',
            CasePage::class,
            query: CaseFilter::PARAMETERS + [
                'field.<id>' => 'A value of a custom field, or "none"',
                'sort' => 'key, order, title, state, type, priority, owner, estimate, walked or changed; "-" before it: backwards',
                'group' => 'state, type, priority or owner: sorted by it',
                'after' => 'Where the page before ended',
            ],
        ),
    ]
    public function index(Request $request, Project $project, ListCases $list): JsonResponse
    {
        $user = $this->memberships->person($request);
        $filter = CaseFilter::from($project, $request->query->all(), $user->id);

        return new JsonResponse(
            $list(
                $project,
                $filter,
                $request->query->getString('sort'),
                $request->query->getString('after'),
                $request->query->getString('group'),
            ),
        );
    }

    #[
        Get(
            '/projects/{project}/cases/counts',
            'How many cases a filter finds',
            CaseCounts::class,
            query: CaseFilter::PARAMETERS + [
                'field.<id>' => 'A value of a custom field, or "none"',
                'group' => 'state, type, priority or owner: counts by it as well',
            ],
        ),
    ]
    public function counts(Request $request, Project $project, CountCases $count): JsonResponse
    {
        $filter = CaseFilter::from($project, $request->query->all(), $this->memberships->person($request)->id);

        return new JsonResponse($count($project, $filter, $request->query->getString('group')));
    }

    #[Get('/cases/{case}/needs', 'What a case usually waits for', CaseNeed::class, true)]
    public function needs(TestCase $case, CaseNeeds $needs): JsonResponse
    {
        return new JsonResponse($needs->of($case));
    }

    #[
        Put(
            '/cases/{case}/needs',
            'Say what a case usually waits for; offered when entries are made of it',
            CaseNeed::class,
            CaseNeedsRequest::class,
            list: true,
        ),
    ]
    #[Needs(Permission::WriteCases)]
    public function writeNeeds(CaseNeedsRequest $request, TestCase $case, CaseNeeds $needs): JsonResponse
    {
        Gate::authorize('write', $case);
        /** @var list<array{case: string, kind: string}> $wanted */
        $wanted = array_values((array) $request->validated('needs'));

        return new JsonResponse($needs->write($case, $request->person(), $wanted));
    }

    #[Post('/projects/{project}/cases', 'Make a case', CaseSaved::class, CaseRequest::class, 201)]
    #[Needs(Permission::WriteCases)]
    public function store(CaseRequest $request, Project $project, SaveCase $save): JsonResponse
    {
        Gate::authorize('writeCases', $project);

        return new JsonResponse($save->make($project, $request->person(), $request->validated()), 201);
    }

    #[
        Post(
            '/projects/{project}/case-checks',
            'What is wrong with a case, and how it will read in the walk',
            CaseCheck::class,
            CaseCheckRequest::class,
        ),
    ]
    #[AllowedInArchive]
    #[Needs(Permission::Read)]
    public function check(CaseCheckRequest $request, Project $project, CheckCase $check): JsonResponse
    {
        return new JsonResponse($check->preview($project->id, CaseText::fromArray($request->validated()), $request->integer('row', 1)));
    }

    #[Get('/cases/{case}', 'A case with its steps, and where it was walked', CaseDetail::class)]
    public function show(Request $request, TestCase $case, ReadCase $read): JsonResponse
    {
        $user = $this->memberships->person($request);

        return (new JsonResponse($read->detail($case, $user, $this->memberships->sure($user, $case->project_id))))->setEtag(
            (string) $case->revision,
        );
    }

    #[
        Put(
            '/cases/{case}',
            'Save a case. The revision that one began from comes in the body or as If-Match; when another saved ' .
                'meanwhile the answer is 412',
            CaseSaved::class,
            CaseRequest::class,
        ),
    ]
    #[Needs(Permission::WriteCases)]
    public function update(CaseRequest $request, TestCase $case, SaveCase $save): JsonResponse
    {
        Gate::authorize('write', $case);
        $revision = $request->integer('revision') ?: (int) trim((string) $request->headers->get('If-Match'), '"W/ ');
        if ($revision < 1) {
            throw ValidationException::withMessages(['revision' => 'Say which revision you began from, in the body or as If-Match.']);
        }
        $saved = $save->save($case, $request->person(), $request->validated(), $revision);

        return (new JsonResponse($saved))->setEtag((string) $saved->case->revision);
    }

    #[
        Post(
            '/cases/{case}/merges',
            'My changes and those saved meanwhile, brought together; nothing is written',
            CaseMerge::class,
            CaseRequest::class,
        ),
    ]
    #[AllowedInArchive]
    #[Needs(Permission::Read)]
    public function merge(CaseRequest $request, TestCase $case, SaveCase $save): JsonResponse
    {
        return new JsonResponse($save->merge($case, $request->validated(), $request->integer('version')));
    }

    #[Get('/cases/{case}/history', 'All that happened to a case', CaseHistory::class)]
    public function history(TestCase $case, ReadCase $read): JsonResponse
    {
        return new JsonResponse($read->history($case));
    }

    #[
        Get(
            '/cases/{case}/comparison',
            'Two versions of a case beside each other',
            CaseComparison::class,
            query: ['from' => 'The number of a version', 'to' => 'The number of a version'],
        ),
    ]
    public function comparison(Request $request, TestCase $case, ReadCase $read): JsonResponse
    {
        return new JsonResponse($read->comparisonOf($case, $request->query->getInt('from') ?: null, $request->query->getInt('to') ?: null));
    }

    #[Get('/cases/{case}/results', 'How a case went last', CaseResult::class, true)]
    public function results(Request $request, TestCase $case, ReadCase $read): JsonResponse
    {
        $user = $this->memberships->person($request);

        return new JsonResponse($read->results($case, $user, $this->memberships->sure($user, $case->project_id)));
    }

    #[Post('/cases/{case}/restorations', 'Bring an old version back as the newest', CaseSaved::class, VersionRequest::class)]
    #[Needs(Permission::WriteCases)]
    public function bringBack(VersionRequest $request, TestCase $case, SaveCase $save): JsonResponse
    {
        Gate::authorize('write', $case);

        return new JsonResponse($save->bringBack($case, $request->person(), $request->integer('version')));
    }

    #[Post('/cases/{case}/reviews', 'Ask for approval, approve, or return with a comment', CaseSaved::class, ReviewRequest::class)]
    #[Needs(Permission::WriteCases)]
    public function review(ReviewRequest $request, TestCase $case, SaveCase $save): JsonResponse
    {
        $act = ReviewAct::from($request->string('act')->toString());
        Gate::authorize(ReviewAct::Ask === $act ? 'write' : 'approve', $case);

        return new JsonResponse($save->review($case, $request->person(), $act, $request->string('comment')->toString()));
    }

    #[Post('/cases/{case}/routines', 'Make a routine of some of its steps', RoutineDetail::class, ExtractRequest::class, 201)]
    #[Needs(Permission::WriteCases)]
    public function extract(ExtractRequest $request, TestCase $case, SaveRoutine $save, RoutineAndTableQueries $shelf): JsonResponse
    {
        Gate::authorize('write', $case);
        $routine = $save->extract(
            $case,
            $request->person(),
            $request->string('name')->toString(),
            array_map(intval(...), array_values((array) $request->validated('positions'))),
            $request->integer('revision'),
        );

        return new JsonResponse($shelf->routine($routine, true), 201);
    }

    #[
        Put(
            '/cases/{case}/presence',
            'Say that one has a case open to write; the answer names who else has',
            Presence::class,
            StampRequest::class,
        ),
    ]
    #[AllowedInArchive]
    #[Needs(Permission::Read)]
    public function presence(StampRequest $request, TestCase $case, ReadCase $read, RecordPresence $presence): JsonResponse
    {
        $user = $request->person();
        if (Gate::allows('write', $case)) {
            $presence($case, $user);
        }

        return new JsonResponse(new Presence($read->others($case, $user)));
    }
}
