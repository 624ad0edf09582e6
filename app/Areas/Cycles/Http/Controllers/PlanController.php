<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Http\Controllers;

use Illuminate\Database\Eloquent\ModelNotFoundException;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Gate;
use Illuminate\Support\Str;
use LucidStep\App\Areas\Cycles\Actions\AddEntries;
use LucidStep\App\Areas\Cycles\Actions\AssignEntries;
use LucidStep\App\Areas\Cycles\Actions\BulkEditCycles;
use LucidStep\App\Areas\Cycles\Actions\BulkEditEntries;
use LucidStep\App\Areas\Cycles\Actions\ChangeCycleState;
use LucidStep\App\Areas\Cycles\Actions\CloneCycles;
use LucidStep\App\Areas\Cycles\Actions\PlanShortTime;
use LucidStep\App\Areas\Cycles\Actions\RemoveCycleWords;
use LucidStep\App\Areas\Cycles\Actions\SaveCycle;
use LucidStep\App\Areas\Cycles\Actions\UndoPlanAct;
use LucidStep\App\Areas\Cycles\Data\AssignmentPlan;
use LucidStep\App\Areas\Cycles\Data\ClonePreview;
use LucidStep\App\Areas\Cycles\Data\CycleDetail;
use LucidStep\App\Areas\Cycles\Data\CyclePlan;
use LucidStep\App\Areas\Cycles\Data\LogEntry;
use LucidStep\App\Areas\Cycles\Data\PlanActResult;
use LucidStep\App\Areas\Cycles\Data\SelectionCount;
use LucidStep\App\Areas\Cycles\Data\ShortPlan;
use LucidStep\App\Areas\Cycles\EntryChanges\AssignMany;
use LucidStep\App\Areas\Cycles\Http\Requests\AssignRequest;
use LucidStep\App\Areas\Cycles\Http\Requests\BulkEditCyclesRequest;
use LucidStep\App\Areas\Cycles\Http\Requests\BulkEditEntriesRequest;
use LucidStep\App\Areas\Cycles\Http\Requests\CloneRequest;
use LucidStep\App\Areas\Cycles\Http\Requests\CycleChangeRequest;
use LucidStep\App\Areas\Cycles\Http\Requests\CycleRequest;
use LucidStep\App\Areas\Cycles\Http\Requests\CycleStateRequest;
use LucidStep\App\Areas\Cycles\Http\Requests\EntrySelectionRequest;
use LucidStep\App\Areas\Cycles\Http\Requests\ShortTimeRequest;
use LucidStep\App\Areas\Cycles\Http\Resources\AdditionState;
use LucidStep\App\Areas\Cycles\Queries\ReadPlan;
use LucidStep\App\Areas\Notices\Actions\ReportStandstill;
use LucidStep\App\Areas\Setup\Queries\ProjectReferences;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\EntryAddition;
use LucidStep\App\Models\JobState;
use LucidStep\App\Models\PlanAct;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Access\AllowedInArchive;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Access\ProjectLookup;
use LucidStep\App\Support\Http\Costly;
use LucidStep\App\Support\Http\ReasonRequest;
use LucidStep\App\Support\Http\StampRequest;
use LucidStep\App\Support\Http\WhyRequest;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Patch;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\Core\Access\Permission;
use LucidStep\Core\Planning\CycleState;

/**
 * Planning of cycles: what is in them, in which order, whose it is, and where they stand.
 */
final readonly class PlanController
{
    public function __construct(private ReadPlan $read, private Memberships $memberships, private ReportStandstill $standstill) {}

    #[Get('/cycles/{cycle}/plan', 'A cycle as its planner sees it', CyclePlan::class)]
    public function show(Request $request, Cycle $cycle): JsonResponse
    {
        return new JsonResponse(
            ($this->read)($cycle, $this->memberships->sure($this->memberships->person($request), $cycle->project_id)->leads()),
        );
    }

    #[Get('/cycles/{cycle}/log', 'What was done to a cycle, the newest first', LogEntry::class, true)]
    #[Needs(Permission::SeeEvidence)]
    public function log(Cycle $cycle): JsonResponse
    {
        return new JsonResponse($this->read->log($cycle));
    }

    #[
        Post(
            '/cycles/{cycle}/log/{line}/removals',
            'Take the words out with which something was done to a cycle; the trace stays',
            LogEntry::class,
            WhyRequest::class,
            list: true,
        ),
    ]
    #[Needs(Permission::RemoveContent)]
    public function removeWords(WhyRequest $request, Cycle $cycle, int $line, RemoveCycleWords $remove): JsonResponse
    {
        Gate::authorize('removeContent', ProjectLookup::find($cycle->project_id));
        $remove($cycle, $line, $request->person(), $request->string('reason')->trim()->toString());

        return new JsonResponse($this->read->log($cycle));
    }

    #[Costly]
    #[
        Post(
            '/projects/{project}/selection-counts',
            'How much is picked, before it is planned',
            SelectionCount::class,
            EntrySelectionRequest::class,
        ),
    ]
    #[AllowedInArchive]
    #[Needs(Permission::Read)]
    public function count(EntrySelectionRequest $request, Project $project, AddEntries $add): JsonResponse
    {
        $key = $request->validated('cycle');
        $cycle = \is_string($key) ? $this->read->cycle($project->id, $key) ?? throw new ModelNotFoundException() : null;

        return new JsonResponse(
            $add->count($project, $request->person(), (array) $request->validated('picks'), $cycle, [
                'starts_on' => $request->validated('starts_on'),
                'ends_on' => $request->validated('ends_on'),
                'testers' => array_values((array) $request->validated('testers')),
            ]),
        );
    }

    #[Post('/projects/{project}/cycles', 'Plan a cycle', CycleDetail::class, CycleRequest::class, 201)]
    #[Needs(Permission::Lead)]
    public function store(CycleRequest $request, Project $project, SaveCycle $keep): JsonResponse
    {
        Gate::authorize('lead', $project);

        return new JsonResponse($this->read->detail($keep->make($project, $request->person(), $request->validated()), $project), 201);
    }

    #[Patch('/cycles/{cycle}', 'Change a cycle', CycleDetail::class, CycleChangeRequest::class)]
    #[Needs(Permission::Lead)]
    public function update(CycleChangeRequest $request, Cycle $cycle, SaveCycle $keep): JsonResponse
    {
        $this->lead($cycle);
        $fields = $request->validated();
        $changed = $keep->change($cycle, $request->person(), array_diff_key($fields, ['revision' => true]), (int) $fields['revision']);

        return new JsonResponse($this->read->detail($changed, ProjectLookup::find($cycle->project_id)));
    }

    #[Post('/cycles/{cycle}/moves', 'Release, close, reopen … a cycle', CycleDetail::class, CycleStateRequest::class)]
    #[Needs(Permission::Lead)]
    public function move(CycleStateRequest $request, Cycle $cycle, ChangeCycleState $move): JsonResponse
    {
        $this->lead($cycle);
        $moved = $move(
            $cycle,
            $request->person(),
            CycleState::from($request->string('to')->toString()),
            $request->string('reason')->toString(),
        );

        return new JsonResponse($this->read->detail($moved, ProjectLookup::find($cycle->project_id)));
    }

    #[
        Post(
            '/cycles/{cycle}/sign-offs',
            'Sign a cycle off, with what is knowingly left unwalked',
            CycleDetail::class,
            ReasonRequest::class,
            201,
        ),
    ]
    #[Needs(Permission::Lead)]
    public function signOff(ReasonRequest $request, Cycle $cycle, ChangeCycleState $move): JsonResponse
    {
        $this->lead($cycle);
        $move->signOff($cycle, $request->person(), $request->string('note')->toString());

        return new JsonResponse($this->read->detail($cycle->refresh(), ProjectLookup::find($cycle->project_id)), 201);
    }

    #[Costly]
    #[Post('/cycles/{cycle}/clones', 'Clone a cycle, with new dates', CycleDetail::class, CloneRequest::class, 201)]
    #[Needs(Permission::Lead)]
    public function clone(CloneRequest $request, Cycle $cycle, CloneCycles $clone): JsonResponse
    {
        $this->lead($cycle);
        $made = $clone->do($cycle, $request->person(), $request->options($cycle));

        return new JsonResponse($this->read->detail($made[0], ProjectLookup::find($cycle->project_id)), 201);
    }

    #[Costly]
    #[Post('/cycles/{cycle}/clone-previews', 'Preview a clone of a cycle: old and new dates', ClonePreview::class, CloneRequest::class)]
    #[AllowedInArchive]
    #[Needs(Permission::Read)]
    public function previewAgain(CloneRequest $request, Cycle $cycle, CloneCycles $clone): JsonResponse
    {
        return new JsonResponse($clone->preview($cycle, $request->options($cycle)));
    }

    #[Costly]
    #[Post('/cycles/{cycle}/entries', 'Add entries to a cycle', AdditionState::class, EntrySelectionRequest::class, 202)]
    #[Needs(Permission::Lead)]
    public function add(EntrySelectionRequest $request, Cycle $cycle, AddEntries $add): JsonResponse
    {
        $this->lead($cycle);

        return new JsonResponse($this->state($add($cycle, $request->person(), (array) $request->validated('picks'))), 202);
    }

    #[Get('/entry-additions/{addition}', 'How far adding entries is', AdditionState::class)]
    public function addition(EntryAddition $addition): JsonResponse
    {
        return new JsonResponse($this->state($addition));
    }

    #[Post('/entry-additions/{addition}/cancel', 'Stop adding entries; none of them stays', AdditionState::class, StampRequest::class)]
    #[Needs(Permission::Lead)]
    public function cancel(StampRequest $request, EntryAddition $addition, AddEntries $add): JsonResponse
    {
        Gate::authorize('lead', ProjectLookup::find($addition->project_id));

        return new JsonResponse($this->state($add->cancel($addition)));
    }

    #[
        Post(
            '/cycles/{cycle}/entry-acts',
            'Assign, order, condition or remove entries of a cycle',
            PlanActResult::class,
            BulkEditEntriesRequest::class,
        ),
    ]
    #[Needs(Permission::Lead)]
    public function act(BulkEditEntriesRequest $request, Cycle $cycle, BulkEditEntries $acts): JsonResponse
    {
        $this->lead($cycle);
        return new JsonResponse($acts($cycle, $request->person(), $request->change(), $request->ids(), $request->note()));
    }

    #[
        Post(
            '/projects/{project}/cycle-acts',
            'Extend many cycles, or change their build',
            PlanActResult::class,
            BulkEditCyclesRequest::class,
        ),
    ]
    #[Needs(Permission::Lead)]
    public function actOnCycles(BulkEditCyclesRequest $request, Project $project, BulkEditCycles $acts): JsonResponse
    {
        Gate::authorize('lead', $project);
        $build = $request->validated('build_id');
        ProjectReferences::check($project->id, \is_string($build) ? $build : null, null);

        return new JsonResponse(
            $acts(
                $project->id,
                $request->person(),
                array_values((array) $request->validated('ids')),
                array_filter(['days' => $request->validated('days'), 'build_id' => $build]),
            ),
        );
    }

    #[Post('/plan-acts/{planAct}/undo', 'Undo a change of a plan', PlanActResult::class, StampRequest::class)]
    #[Needs(Permission::Lead)]
    public function undo(StampRequest $request, PlanAct $planAct, UndoPlanAct $undo): JsonResponse
    {
        Gate::authorize('lead', ProjectLookup::find($planAct->project_id));

        return new JsonResponse($undo($planAct, $request->person()));
    }

    #[
        Post(
            '/cycles/{cycle}/assignment-previews',
            'Preview who would be assigned which entries',
            AssignmentPlan::class,
            AssignRequest::class,
        ),
    ]
    #[AllowedInArchive]
    #[Needs(Permission::Read)]
    public function previewAssignment(AssignRequest $request, Cycle $cycle, AssignEntries $assign): JsonResponse
    {
        return new JsonResponse($this->assignment($request, $cycle, $assign));
    }

    #[Costly]
    #[Post('/cycles/{cycle}/assignments', 'Hand out what is unassigned', PlanActResult::class, AssignRequest::class)]
    #[Needs(Permission::Lead)]
    public function assign(AssignRequest $request, Cycle $cycle, AssignEntries $assign, BulkEditEntries $acts): JsonResponse
    {
        $this->lead($cycle);
        $plan = $this->assignment($request, $cycle, $assign);
        $given = array_map(strval(...), (array) $plan->given);
        $people = \count(array_unique($given));
        $title = \sprintf(
            'Handed out %d %s to %d %s',
            $plan->count,
            Str::plural('entry', $plan->count),
            $people,
            Str::plural('person', $people),
        );

        return new JsonResponse(
            $acts($cycle, $request->person(), new AssignMany($given, $title), array_map(strval(...), array_keys($given))),
        );
    }

    #[Costly]
    #[Post('/cycles/{cycle}/short-plan-previews', 'What to walk when time is short', ShortPlan::class, ShortTimeRequest::class)]
    #[AllowedInArchive]
    #[Needs(Permission::Read)]
    public function previewShort(ShortTimeRequest $request, Cycle $cycle, PlanShortTime $plan): JsonResponse
    {
        return new JsonResponse(
            $plan->preview(
                $cycle,
                (int) $request->validated('minutes'),
                array_values((array) $request->validated('in')),
                array_values((array) $request->validated('out')),
            ),
        );
    }

    #[
        Post(
            '/cycles/{cycle}/short-plans',
            'Order and assign by what to walk when time is short',
            PlanActResult::class,
            ShortTimeRequest::class,
        ),
    ]
    #[Needs(Permission::Lead)]
    public function short(ShortTimeRequest $request, Cycle $cycle, PlanShortTime $plan): JsonResponse
    {
        $this->lead($cycle);

        return new JsonResponse(
            $plan->apply(
                $cycle,
                $request->person(),
                (int) $request->validated('minutes'),
                array_values((array) $request->validated('in')),
                array_values((array) $request->validated('out')),
                array_values((array) $request->validated('people')),
            ),
        );
    }

    private function assignment(AssignRequest $request, Cycle $cycle, AssignEntries $assign): AssignmentPlan
    {
        return $assign->preview(
            $cycle,
            array_values((array) $request->validated('people')),
            (array) $request->validated('shares'),
            array_values((array) $request->validated('ids')),
        );
    }

    private function lead(Cycle $cycle): void
    {
        Gate::authorize('lead', ProjectLookup::find($cycle->project_id));
    }

    private function state(EntryAddition $addition): AdditionState
    {
        return new AdditionState(
            $addition->id,
            $addition->state->value,
            $addition->done,
            $addition->total,
            $addition->problem,
            (int) ($addition->facts['conditions'] ?? 0),
            ($this->standstill)($addition->project_id, JobState::Running === $addition->state),
        );
    }
}
