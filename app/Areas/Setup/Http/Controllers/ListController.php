<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Support\Facades\Gate;
use LucidStep\App\Areas\Setup\Actions\SaveLists;
use LucidStep\App\Areas\Setup\Data\ProjectSetup;
use LucidStep\App\Areas\Setup\Http\Requests\FieldsRequest;
use LucidStep\App\Areas\Setup\Http\Requests\LabelRequest;
use LucidStep\App\Areas\Setup\Http\Requests\LabelsRequest;
use LucidStep\App\Areas\Setup\Http\Requests\ListRequest;
use LucidStep\App\Areas\Setup\Queries\ReadProjectSetup;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Patch;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\App\Support\OpenApi\Put;
use LucidStep\Core\Access\Permission;

/**
 * The lists that a project edits.
 */
final class ListController
{
    public function __construct(private readonly SaveLists $keep, private readonly ReadProjectSetup $read) {}

    #[Get('/projects/{project}/lists', 'Types, priorities, labels and custom fields, with how often each is used', ProjectSetup::class)]
    public function show(Project $project): JsonResponse
    {
        return new JsonResponse($this->setup($project));
    }

    #[Put('/projects/{project}/lists/types', 'Replace the list of types', ProjectSetup::class, ListRequest::class)]
    #[Needs(Permission::Lead)]
    public function types(ListRequest $request, Project $project): JsonResponse
    {
        return $this->write($request, $project, 'type');
    }

    #[Put('/projects/{project}/lists/priorities', 'Replace the list of priorities', ProjectSetup::class, ListRequest::class)]
    #[Needs(Permission::Lead)]
    public function priorities(ListRequest $request, Project $project): JsonResponse
    {
        return $this->write($request, $project, 'priority');
    }

    #[Put('/projects/{project}/lists/milestone-types', 'Replace the types of milestones', ProjectSetup::class, ListRequest::class)]
    #[Needs(Permission::Lead)]
    public function milestoneTypes(ListRequest $request, Project $project): JsonResponse
    {
        return $this->write($request, $project, 'milestone');
    }

    #[Put('/projects/{project}/lists/phases', 'Replace the phases of cycles', ProjectSetup::class, ListRequest::class)]
    #[Needs(Permission::Lead)]
    public function phases(ListRequest $request, Project $project): JsonResponse
    {
        return $this->write($request, $project, 'phase');
    }

    #[Put('/projects/{project}/lists/components', 'Replace the components that defects are in', ProjectSetup::class, ListRequest::class)]
    #[Needs(Permission::Lead)]
    public function components(ListRequest $request, Project $project): JsonResponse
    {
        return $this->write($request, $project, 'component');
    }

    #[Put('/projects/{project}/lists/fields', 'Replace the custom fields of cases', ProjectSetup::class, FieldsRequest::class)]
    #[Needs(Permission::Lead)]
    public function fields(FieldsRequest $request, Project $project): JsonResponse
    {
        return $this->writeFields($request, $project, 'case');
    }

    #[Put('/projects/{project}/lists/defect-fields', 'Replace the custom fields of defects', ProjectSetup::class, FieldsRequest::class)]
    #[Needs(Permission::Lead)]
    public function defectFields(FieldsRequest $request, Project $project): JsonResponse
    {
        return $this->writeFields($request, $project, 'defect');
    }

    #[Post('/projects/{project}/labels', 'Add labels', ProjectSetup::class, LabelsRequest::class)]
    #[Needs(Permission::WriteCases)]
    public function addLabels(LabelsRequest $request, Project $project): JsonResponse
    {
        Gate::authorize('writeCases', $project);
        $this->keep->addLabels($project, array_values((array) $request->validated('names')));

        return new JsonResponse($this->setup($project));
    }

    #[
        Patch(
            '/projects/{project}/labels',
            'Rename a label on every case and defect, merge it into another, or take it off',
            ProjectSetup::class,
            LabelRequest::class,
        ),
    ]
    #[Needs(Permission::Lead)]
    public function renameLabel(LabelRequest $request, Project $project): JsonResponse
    {
        Gate::authorize('lead', $project);
        $this->keep->renameLabel($project, $request->string('from')->toString(), $request->string('to')->toString());

        return new JsonResponse($this->setup($project));
    }

    /**
     * @param  'type'|'priority'|'milestone'|'phase'|'component'  $list
     */
    private function write(ListRequest $request, Project $project, string $list): JsonResponse
    {
        Gate::authorize('lead', $project);
        $this->keep->items(
            $project,
            $list,
            array_values(
                array_map(
                    static fn(array $i): array => [
                        'value' => $i['value'] ?? null,
                        'name' => (string) ($i['name'] ?? ''),
                        'weight' => $i['weight'] ?? null,
                    ],
                    (array) $request->validated('items'),
                ),
            ),
            $request->validated('seen'),
        );

        return new JsonResponse($this->setup($project));
    }

    /**
     * @param  'case'|'defect'  $subject
     */
    private function writeFields(FieldsRequest $request, Project $project, string $subject): JsonResponse
    {
        Gate::authorize('lead', $project);
        $this->keep->fields(
            $project,
            array_values(
                array_map(
                    static fn(array $f): array => [
                        'id' => $f['id'] ?? null,
                        'name' => (string) ($f['name'] ?? ''),
                        'kind' => (string) ($f['kind'] ?? ''),
                        'choices' => array_values($f['choices'] ?? []),
                        'required' => (bool) ($f['required'] ?? false),
                    ],
                    (array) $request->validated('fields'),
                ),
            ),
            $request->validated('seen'),
            subject: $subject,
        );

        return new JsonResponse($this->setup($project));
    }

    private function setup(Project $project): ProjectSetup
    {
        return ($this->read)($project, Gate::allows('lead', $project));
    }
}
