<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Controllers;

use Illuminate\Auth\Access\AuthorizationException;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Actions\Cycles\AskRetest;
use LucidStep\App\Actions\Cycles\ReadBoard;
use LucidStep\App\Actions\Walk\JudgeFromList;
use LucidStep\App\Http\Docs\Get;
use LucidStep\App\Http\Docs\Post;
use LucidStep\App\Http\Requests\ListVerdictRequest;
use LucidStep\App\Http\Requests\RetestRequest;
use LucidStep\App\Http\Resources\CycleBoard;
use LucidStep\App\Http\Resources\CycleSummary;
use LucidStep\App\Http\Resources\EntryDetail;
use LucidStep\App\Http\Resources\ListVerdictDone;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\User;
use LucidStep\App\Policies\Memberships;

/**
 * Cycles and their entries.
 */
final readonly class CycleController
{
    public function __construct(private ReadBoard $read)
    {
    }

    #[Get('/projects/{project}/cycles', 'The cycles of a project, newest end first', CycleSummary::class, true)]
    public function index(Project $project): JsonResponse
    {
        return new JsonResponse($this->read->cycles($project, Gate::allows('lead', $project)));
    }

    #[Get('/cycles/{cycle}', 'A cycle with all its entries', CycleBoard::class)]
    public function show(Request $request, Cycle $cycle): JsonResponse
    {
        $user = $request->user();

        return new JsonResponse($this->read->board($cycle, $user instanceof User ? $user : throw new \LogicException('Guests do not come here.')));
    }

    #[Get('/entries/{entry}', 'An entry with all its attempts', EntryDetail::class)]
    public function entry(Entry $entry): JsonResponse
    {
        return new JsonResponse($this->read->entry($entry));
    }

    #[Post('/cycles/{cycle}/list-verdicts', 'Give entries their verdict from the list, without walking them', ListVerdictDone::class, ListVerdictRequest::class)]
    public function judge(ListVerdictRequest $request, Cycle $cycle, JudgeFromList $judge, Memberships $memberships): JsonResponse
    {
        $role = $memberships->sure($request->person(), $cycle->project_id);
        if (!$role->records()) {
            throw new AuthorizationException('Only those who record judge entries.');
        }
        $said = $request->safe()->only(['verdict', 'note', 'reason', 'waits_on']);

        return new JsonResponse($judge($cycle, $request->person(), $role, array_values((array) $request->validated('ids')), $said, $request->stamp()));
    }

    #[Post('/entries/{entry}/retests', 'Ask for an entry to be walked again', EntryDetail::class, RetestRequest::class, 201)]
    public function retest(RetestRequest $request, Entry $entry, AskRetest $ask): JsonResponse
    {
        Gate::authorize('askRetest', $entry);

        return new JsonResponse($this->read->entry($ask($entry, $request->person(), $request->string('reason')->toString())), 201);
    }
}
