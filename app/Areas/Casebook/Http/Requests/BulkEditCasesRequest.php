<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * An act on many cases: those of some ids, or those that a filter holds.
 */
#[
    OA\Schema(
        required: ['act', 'filter'],
        properties: [
            new OA\Property(property: 'act', type: 'string', enum: ['edit', 'move', 'copy', 'bin', 'restore']),
            new OA\Property(property: 'filter', type: 'object', additionalProperties: new OA\AdditionalProperties(type: 'string')),
            new OA\Property(property: 'changes', type: 'object', additionalProperties: true),
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
            'filter' => ['required', 'array'],
            'filter.*' => ['nullable', 'string', 'max:200000'],
            'preview' => ['nullable', 'boolean'],
            'changes' => ['nullable', 'array'],
            'changes.state' => ['nullable', 'in:draft,in_review,approved,retired'],
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
            'changes.custom' => ['nullable', 'array', 'max:60'],
            'changes.custom.*' => ['nullable', 'string', 'max:4000'],
        ];
    }
}
