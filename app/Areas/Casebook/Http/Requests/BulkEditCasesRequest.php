<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Requests;

use Illuminate\Validation\Rule;
use LucidStep\App\Areas\Casebook\Actions\BulkEditCases;
use LucidStep\App\Support\Http\ApiRequest;
use LucidStep\Core\Casebook\CaseState;
use OpenApi\Attributes as OA;

/**
 * An act on many cases: those of some ids, or those that a filter holds.
 *
 * @phpstan-import-type Changes from BulkEditCases
 */
#[
    OA\Schema(
        required: ['act', 'filter'],
        properties: [
            new OA\Property(property: 'act', type: 'string', enum: ['edit', 'move', 'copy', 'bin', 'restore']),
            new OA\Property(property: 'filter', ref: CaseFilterFields::class),
            new OA\Property(
                property: 'changes',
                properties: [
                    new OA\Property(property: 'state', type: 'string', enum: CaseState::class),
                    new OA\Property(property: 'type', type: 'string'),
                    new OA\Property(property: 'priority', type: 'string'),
                    new OA\Property(property: 'estimate', type: 'string', description: 'As people write it, such as 5m; empty: none'),
                    new OA\Property(property: 'automated', type: 'boolean'),
                    new OA\Property(property: 'is_template', type: 'boolean'),
                    new OA\Property(property: 'owner_id', type: 'string', format: 'uuid', nullable: true),
                    new OA\Property(property: 'labels_add', type: 'array', items: new OA\Items(type: 'string')),
                    new OA\Property(property: 'labels_remove', type: 'array', items: new OA\Items(type: 'string')),
                    new OA\Property(property: 'requirements_add', type: 'array', items: new OA\Items(type: 'string', format: 'uuid')),
                    new OA\Property(property: 'requirements_remove', type: 'array', items: new OA\Items(type: 'string', format: 'uuid')),
                    new OA\Property(
                        property: 'custom',
                        type: 'object',
                        description: 'Values by id of the field',
                        additionalProperties: new OA\AdditionalProperties(type: 'string', nullable: true),
                    ),
                    new OA\Property(
                        property: 'folder_id',
                        type: 'string',
                        format: 'uuid',
                        nullable: true,
                        description: 'move, copy: where to; null: no folder',
                    ),
                    new OA\Property(property: 'before', type: 'string', format: 'uuid', description: 'move: in front of which case'),
                    new OA\Property(property: 'project', type: 'string', description: 'copy: the code of another project'),
                ],
                type: 'object',
            ),
            new OA\Property(property: 'preview', type: 'boolean'),
        ],
    ),
]
final class BulkEditCasesRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'act' => ['required', 'in:edit,move,copy,bin,restore'],
            ...CaseFilterFields::rules('filter', 'present'),
            'preview' => ['nullable', 'boolean'],
            'changes' => ['nullable', 'array'],
            'changes.state' => ['nullable', Rule::enum(CaseState::class)],
            'changes.folder_id' => ['nullable', 'uuid'],
            'changes.before' => ['nullable', 'uuid'],
            'changes.project' => ['nullable', 'string', 'max:10'],
            'changes.type' => ['nullable', 'string', 'max:60'],
            'changes.priority' => ['nullable', 'string', 'max:60'],
            'changes.estimate' => ['nullable', 'string', 'max:40'],
            'changes.automated' => ['nullable', 'boolean'],
            'changes.is_template' => ['nullable', 'boolean'],
            'changes.owner_id' => ['nullable', 'uuid'],
            'changes.labels_add' => ['nullable', 'array', 'max:50'],
            'changes.labels_add.*' => ['string', 'max:60'],
            'changes.labels_remove' => ['nullable', 'array', 'max:50'],
            'changes.labels_remove.*' => ['string', 'max:60'],
            'changes.requirements_add' => ['nullable', 'array', 'max:100'],
            'changes.requirements_add.*' => ['uuid'],
            'changes.requirements_remove' => ['nullable', 'array', 'max:100'],
            'changes.requirements_remove.*' => ['uuid'],
            'changes.custom' => ['nullable', 'array', 'max:60'],
            'changes.custom.*' => ['nullable', 'string', 'max:4000'],
        ];
    }

    /**
     * @return Changes as the rules have let them in
     */
    public function changes(): array
    {
        /** @var Changes $changes */
        $changes = (array) $this->validated('changes');

        return $changes;
    }
}
