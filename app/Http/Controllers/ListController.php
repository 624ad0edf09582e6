<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Actions\Casebook\KeepLists;
use LucidStep\App\Actions\Casebook\ProjectLists;
use LucidStep\App\Actions\Casebook\ReadCasebook;
use LucidStep\App\Http\Docs\Get;
use LucidStep\App\Http\Docs\Patch;
use LucidStep\App\Http\Docs\Post;
use LucidStep\App\Http\Docs\Put;
use LucidStep\App\Http\Requests\FieldsRequest;
use LucidStep\App\Http\Requests\LabelRequest;
use LucidStep\App\Http\Requests\LabelsRequest;
use LucidStep\App\Http\Requests\ListRequest;
use LucidStep\App\Http\Resources\CustomFieldLine;
use LucidStep\App\Http\Resources\ListItemLine;
use LucidStep\App\Http\Resources\ProjectSetup;
use LucidStep\App\Models\Project;

/**
 * The lists that a project edits.
 */
final class ListController
{
    public function __construct(private readonly KeepLists $keep, private readonly ReadCasebook $read)
    {
    }

    #[Get('/projects/{project}/lists', 'Types, priorities, labels and custom fields, with how often each is used', ProjectSetup::class)]
    public function show(Project $project): JsonResponse
    {
        return new JsonResponse($this->setup($project));
    }

    #[Put('/projects/{project}/lists/types', 'Write the list of types anew', ProjectSetup::class, ListRequest::class)]
    public function types(ListRequest $request, Project $project): JsonResponse
    {
        return $this->write($request, $project, 'type');
    }

    #[Put('/projects/{project}/lists/priorities', 'Write the list of priorities anew', ProjectSetup::class, ListRequest::class)]
    public function priorities(ListRequest $request, Project $project): JsonResponse
    {
        return $this->write($request, $project, 'priority');
    }

    #[Put('/projects/{project}/lists/milestone-types', 'Write the types of milestones anew', ProjectSetup::class, ListRequest::class)]
    public function milestoneTypes(ListRequest $request, Project $project): JsonResponse
    {
        return $this->write($request, $project, 'milestone');
    }

    #[Put('/projects/{project}/lists/phases', 'Write the phases of cycles anew', ProjectSetup::class, ListRequest::class)]
    public function phases(ListRequest $request, Project $project): JsonResponse
    {
        return $this->write($request, $project, 'phase');
    }

    #[Put('/projects/{project}/lists/fields', 'Write the custom fields anew', ProjectSetup::class, FieldsRequest::class)]
    public function fields(FieldsRequest $request, Project $project): JsonResponse
    {
        Gate::authorize('lead', $project);
        $this->keep->fields($project, array_values(array_map(static fn (array $f): array => [...$f, 'name' => (string) ($f['name'] ?? ''), 'kind' => (string) ($f['kind'] ?? ''), 'choices' => array_values($f['choices'] ?? [])], (array) $request->validated('fields'))));

        return new JsonResponse($this->setup($project));
    }

    #[Post('/projects/{project}/labels', 'Add labels', ProjectSetup::class, LabelsRequest::class)]
    public function addLabels(LabelsRequest $request, Project $project): JsonResponse
    {
        Gate::authorize('writeCases', $project);
        $this->keep->addLabels($project, array_values((array) $request->validated('names')));

        return new JsonResponse($this->setup($project));
    }

    #[Patch('/projects/{project}/labels', 'Rename a label on every case, merge it into another, or take it off', ProjectSetup::class, LabelRequest::class)]
    public function renameLabel(LabelRequest $request, Project $project): JsonResponse
    {
        Gate::authorize('lead', $project);
        $this->keep->renameLabel($project, $request->string('from')->toString(), $request->string('to')->toString());

        return new JsonResponse($this->setup($project));
    }

    /**
     * @param  'type'|'priority'|'milestone'|'phase'  $list
     */
    private function write(ListRequest $request, Project $project, string $list): JsonResponse
    {
        Gate::authorize('lead', $project);
        $this->keep->items($project, $list, array_values(array_map(static fn (array $i): array => ['value' => $i['value'] ?? null, 'name' => (string) ($i['name'] ?? ''), 'weight' => $i['weight'] ?? null], (array) $request->validated('items'))));

        return new JsonResponse($this->setup($project));
    }

    private function setup(Project $project): ProjectSetup
    {
        $lists = new ProjectLists($project);
        $uses = static fn (string $column, string $table = 'cases'): array => DB::table($table)->where('project_id', $project->id)->groupBy($column)->pluck(DB::raw('count(*) as n'), $column)->all();
        $items = static fn (array $all, array $n): array => array_map(static fn (array $i): ListItemLine => new ListItemLine($i['value'], $i['name'], $i['weight'], (int) ($n[$i['value']] ?? 0)), $all);

        $filled = $this->keep->uses($project);

        return new ProjectSetup(
            $items($lists->items('type'), $uses('type')), $items($lists->items('priority'), $uses('priority')), $this->read->labels($project),
            array_values(array_map(static fn ($f): CustomFieldLine => new CustomFieldLine($f->id, $f->name, $f->kind, $f->choices, $f->required, $filled[$f->id] ?? 0), $lists->fields())),
            $items($lists->items('milestone'), $uses('type', 'milestones')), $items($lists->items('phase'), $uses('phase', 'cycles')),
            Gate::allows('lead', $project),
        );
    }
}
