<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Gate;
use Illuminate\Validation\ValidationException;
use LucidStep\App\Actions\Cycles\ActOnCycles;
use LucidStep\App\Actions\Cycles\ActOnEntries;
use LucidStep\App\Actions\Cycles\AddEntries;
use LucidStep\App\Actions\Cycles\AssignEntries;
use LucidStep\App\Actions\Cycles\CloneCycles;
use LucidStep\App\Actions\Cycles\CompareCycles;
use LucidStep\App\Actions\Cycles\KeepCycle;
use LucidStep\App\Actions\Cycles\MoveCycle;
use LucidStep\App\Actions\Cycles\PlanShortTime;
use LucidStep\App\Actions\Cycles\ReadPlan;
use LucidStep\App\Actions\Cycles\UndoPlan;
use LucidStep\App\Http\Docs\Get;
use LucidStep\App\Http\Docs\Patch;
use LucidStep\App\Http\Docs\Post;
use LucidStep\App\Http\Requests\AssignRequest;
use LucidStep\App\Http\Requests\CloneRequest;
use LucidStep\App\Http\Requests\CycleChangeRequest;
use LucidStep\App\Http\Requests\CycleMoveRequest;
use LucidStep\App\Http\Requests\CycleRequest;
use LucidStep\App\Http\Requests\CyclesActRequest;
use LucidStep\App\Http\Requests\EntryActRequest;
use LucidStep\App\Http\Requests\PicksRequest;
use LucidStep\App\Http\Requests\ReasonRequest;
use LucidStep\App\Http\Requests\ShortTimeRequest;
use LucidStep\App\Http\Requests\StampRequest;
use LucidStep\App\Http\Resources\AdditionState;
use LucidStep\App\Http\Resources\AssignmentPlan;
use LucidStep\App\Http\Resources\ClonePreview;
use LucidStep\App\Http\Resources\CycleComparison;
use LucidStep\App\Http\Resources\CycleDetail;
use LucidStep\App\Http\Resources\CyclePlan;
use LucidStep\App\Http\Resources\LogEntry;
use LucidStep\App\Http\Resources\PickCount;
use LucidStep\App\Http\Resources\PlanActDone;
use LucidStep\App\Http\Resources\ShortPlan;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\EntryAddition;
use LucidStep\App\Models\PlanAct;
use LucidStep\App\Models\Project;
use LucidStep\App\Policies\Memberships;
use LucidStep\Core\Planning\CycleState;

/**
 * Planning of cycles: what is in them, in which order, whose it is, and where they stand.
 */
final readonly class PlanController
{
    public function __construct(private ReadPlan $read, private Memberships $memberships)
    {
    }

    #[Get('/cycles/{cycle}/plan', 'A cycle as its planner sees it', CyclePlan::class)]
    public function show(Request $request, Cycle $cycle): JsonResponse
    {
        return new JsonResponse(($this->read)($cycle, $this->memberships->sure($this->memberships->person($request), $cycle->project_id)->leads()));
    }

    #[Get('/cycles/{cycle}/log', 'What was done to a cycle, the newest first', LogEntry::class, true)]
    public function log(Cycle $cycle): JsonResponse
    {
        return new JsonResponse($this->read->log($cycle));
    }

    #[Get('/cycles/{cycle}/comparison', 'A cycle beside an earlier one', CycleComparison::class, query: ['with' => 'The earlier cycle, by key or id'])]
    public function comparison(Request $request, Cycle $cycle, CompareCycles $compare): JsonResponse
    {
        $with = $request->query->getString('with');
        $other = Cycle::query()->where('project_id', $cycle->project_id)->where(\Illuminate\Support\Str::isUuid($with) ? 'id' : 'key', $with)->first() ?? throw ValidationException::withMessages(['with' => 'Choose another cycle of this project.']);

        return new JsonResponse($compare($other, $cycle));
    }

    #[Post('/projects/{project}/pick-counts', 'How much is picked, before it is planned', PickCount::class, PicksRequest::class)]
    public function count(PicksRequest $request, Project $project, AddEntries $add): JsonResponse
    {
        $key = $request->validated('cycle');
        $cycle = \is_string($key) ? Cycle::query()->where('project_id', $project->id)->where(\Illuminate\Support\Str::isUuid($key) ? 'id' : 'key', $key)->firstOrFail() : null;

        return new JsonResponse($add->count($project, $request->person(), (array) $request->validated('picks'), $cycle, ['starts_on' => $request->validated('starts_on'), 'ends_on' => $request->validated('ends_on'), 'testers' => array_values((array) $request->validated('testers'))]));
    }

    #[Post('/projects/{project}/cycles', 'Plan a cycle', CycleDetail::class, CycleRequest::class, 201)]
    public function store(CycleRequest $request, Project $project, KeepCycle $keep): JsonResponse
    {
        Gate::authorize('lead', $project);

        return new JsonResponse($this->read->detail($keep->make($project, $request->person(), $request->validated()), $project), 201);
    }

    #[Patch('/cycles/{cycle}', 'Change a cycle', CycleDetail::class, CycleChangeRequest::class)]
    public function update(CycleChangeRequest $request, Cycle $cycle, KeepCycle $keep): JsonResponse
    {
        $this->lead($cycle);
        $fields = $request->validated();
        $changed = $keep->change($cycle, $request->person(), array_diff_key($fields, ['revision' => true]), $fields['revision'] ?? null);

        return new JsonResponse($this->read->detail($changed, Project::query()->findOrFail($cycle->project_id)));
    }

    #[Post('/cycles/{cycle}/moves', 'Release, close, reopen … a cycle', CycleDetail::class, CycleMoveRequest::class)]
    public function move(CycleMoveRequest $request, Cycle $cycle, MoveCycle $move): JsonResponse
    {
        $this->lead($cycle);
        $moved = $move($cycle, $request->person(), CycleState::from($request->string('to')->toString()), $request->string('reason')->toString());

        return new JsonResponse($this->read->detail($moved, Project::query()->findOrFail($cycle->project_id)));
    }

    #[Post('/cycles/{cycle}/sign-offs', 'Sign a cycle off, with what is knowingly left unwalked', CycleDetail::class, ReasonRequest::class, 201)]
    public function signOff(ReasonRequest $request, Cycle $cycle, MoveCycle $move): JsonResponse
    {
        $this->lead($cycle);
        $move->signOff($cycle, $request->person(), $request->string('note')->toString());

        return new JsonResponse($this->read->detail($cycle->refresh(), Project::query()->findOrFail($cycle->project_id)), 201);
    }

    #[Post('/cycles/{cycle}/clones', 'A cycle again, with new dates', CycleDetail::class, CloneRequest::class, 201)]
    public function again(CloneRequest $request, Cycle $cycle, CloneCycles $clone): JsonResponse
    {
        $this->lead($cycle);
        $made = $clone->do($cycle, $request->person(), $this->how($request));

        return new JsonResponse($this->read->detail($made[0], Project::query()->findOrFail($cycle->project_id)), 201);
    }

    #[Post('/cycles/{cycle}/clone-previews', 'What a cycle again would be', ClonePreview::class, CloneRequest::class)]
    public function previewAgain(CloneRequest $request, Cycle $cycle, CloneCycles $clone): JsonResponse
    {
        return new JsonResponse($clone->preview($cycle, $this->how($request)));
    }

    #[Post('/cycles/{cycle}/entries', 'Add entries to a cycle', AdditionState::class, PicksRequest::class, 202)]
    public function add(PicksRequest $request, Cycle $cycle, AddEntries $add): JsonResponse
    {
        $this->lead($cycle);

        return new JsonResponse(self::state($add($cycle, $request->person(), (array) $request->validated('picks'))), 202);
    }

    #[Get('/entry-additions/{addition}', 'How far adding entries is', AdditionState::class)]
    public function addition(EntryAddition $addition): JsonResponse
    {
        return new JsonResponse(self::state($addition));
    }

    #[Post('/entry-additions/{addition}/cancel', 'Stop adding entries; none of them stays', AdditionState::class, StampRequest::class)]
    public function cancel(StampRequest $request, EntryAddition $addition, AddEntries $add): JsonResponse
    {
        Gate::authorize('lead', Project::query()->findOrFail($addition->project_id));

        return new JsonResponse(self::state($add->cancel($addition)));
    }

    #[Post('/cycles/{cycle}/entry-acts', 'Assign, order, condition or remove entries of a cycle', PlanActDone::class, EntryActRequest::class)]
    public function act(EntryActRequest $request, Cycle $cycle, ActOnEntries $acts): JsonResponse
    {
        $this->lead($cycle);
        /** @var 'assign'|'window'|'condition'|'no_condition'|'move'|'mend'|'remove' $act */
        $act = $request->string('act')->toString();

        return new JsonResponse($acts($cycle, $request->person(), $act, array_values((array) $request->validated('ids')), (array) $request->validated('changes')));
    }

    #[Post('/projects/{project}/cycle-acts', 'Extend many cycles, or change their build', PlanActDone::class, CyclesActRequest::class)]
    public function actOnCycles(CyclesActRequest $request, Project $project, ActOnCycles $acts): JsonResponse
    {
        Gate::authorize('lead', $project);
        $build = $request->validated('build_id');
        if (\is_string($build) && !\LucidStep\App\Models\Build::query()->where('project_id', $project->id)->whereKey($build)->exists()) {
            throw ValidationException::withMessages(['build_id' => 'There is no such build.']);
        }

        return new JsonResponse($acts($project->id, $request->person(), array_values((array) $request->validated('ids')), array_filter(['days' => $request->validated('days'), 'build_id' => $build])));
    }

    #[Post('/plan-acts/{planAct}/undo', 'Take an act of planning back', PlanActDone::class, StampRequest::class)]
    public function undo(StampRequest $request, PlanAct $planAct, UndoPlan $undo): JsonResponse
    {
        Gate::authorize('lead', Project::query()->findOrFail($planAct->project_id));

        return new JsonResponse($undo($planAct, $request->person()));
    }

    #[Post('/cycles/{cycle}/assignment-previews', 'Who would get what', AssignmentPlan::class, AssignRequest::class)]
    public function previewAssignment(AssignRequest $request, Cycle $cycle, AssignEntries $assign): JsonResponse
    {
        return new JsonResponse($this->assignment($request, $cycle, $assign));
    }

    #[Post('/cycles/{cycle}/assignments', 'Hand out what is unassigned', PlanActDone::class, AssignRequest::class)]
    public function assign(AssignRequest $request, Cycle $cycle, AssignEntries $assign, ActOnEntries $acts): JsonResponse
    {
        $this->lead($cycle);
        $plan = $this->assignment($request, $cycle, $assign);
        $given = (array) $plan->given;

        return new JsonResponse($acts($cycle, $request->person(), 'hand_out', array_map(strval(...), array_keys($given)), ['given' => $given, 'title' => \sprintf('Handed out %d %s to %d people', $plan->count, 1 === $plan->count ? 'entry' : 'entries', \count(array_unique($given)))]));
    }

    #[Post('/cycles/{cycle}/short-plan-previews', 'What to walk when time is short', ShortPlan::class, ShortTimeRequest::class)]
    public function previewShort(ShortTimeRequest $request, Cycle $cycle, PlanShortTime $plan): JsonResponse
    {
        return new JsonResponse($plan->preview($cycle, (int) $request->validated('minutes'), array_values((array) $request->validated('in')), array_values((array) $request->validated('out'))));
    }

    #[Post('/cycles/{cycle}/short-plans', 'Order and assign by what to walk when time is short', PlanActDone::class, ShortTimeRequest::class)]
    public function short(ShortTimeRequest $request, Cycle $cycle, PlanShortTime $plan): JsonResponse
    {
        $this->lead($cycle);

        return new JsonResponse($plan->apply($cycle, $request->person(), (int) $request->validated('minutes'), array_values((array) $request->validated('in')), array_values((array) $request->validated('out')), array_values((array) $request->validated('people'))));
    }

    private function assignment(AssignRequest $request, Cycle $cycle, AssignEntries $assign): AssignmentPlan
    {
        return $assign->preview($cycle, array_values((array) $request->validated('people')), (array) $request->validated('shares'), array_values((array) $request->validated('ids')));
    }

    /**
     * @return array<string, mixed>
     */
    private function how(CloneRequest $request): array
    {
        if (null === $request->validated('starts_on')) {
            throw ValidationException::withMessages(['starts_on' => 'Say when the new cycle starts.']);
        }

        return $request->validated();
    }

    private function lead(Cycle $cycle): void
    {
        Gate::authorize('lead', Project::query()->findOrFail($cycle->project_id));
    }

    private static function state(EntryAddition $addition): AdditionState
    {
        return new AdditionState($addition->id, $addition->state, $addition->done, $addition->total, $addition->problem, (int) ($addition->facts['conditions'] ?? 0));
    }
}
