<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use LucidStep\App\Support\Http\UuidList;
use OpenApi\Attributes as OA;

/**
 * An act on entries of a cycle.
 */
#[
    OA\Schema(
        required: ['act'],
        properties: [
            new OA\Property(
                property: 'act',
                type: 'string',
                enum: ['assign', 'window', 'condition', 'no_condition', 'move', 'mend', 'remove'],
            ),
            new OA\Property(property: 'ids', type: 'array', items: new OA\Items(type: 'string', format: 'uuid')),
            new OA\Property(property: 'changes', type: 'object', additionalProperties: true),
        ],
    ),
]
final class BulkEditEntriesRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'act' => ['required', 'in:assign,window,condition,no_condition,move,mend,remove'],
            'ids' => ['required_unless:act,mend', 'array', 'max:50000', new UuidList()],
            'changes' => ['nullable', 'array'],
            'changes.assignee_id' => ['nullable', 'uuid'],
            'changes.note' => ['nullable', 'string', 'max:2000'],
            'changes.not_before' => ['nullable', 'date'],
            'changes.not_after' => ['nullable', 'date'],
            'changes.needs_id' => ['nullable', 'uuid'],
            'changes.kind' => ['nullable', 'in:after,only_if_passed'],
            'changes.before_id' => ['nullable', 'uuid'],
        ];
    }
}
