<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * A suite: its rule, its requirement, or cases to pick.
 */
#[
    OA\Schema(
        required: ['name'],
        properties: [
            new OA\Property(property: 'name', type: 'string'),
            new OA\Property(property: 'kind', type: 'string', enum: ['picked', 'rule', 'requirement']),
            new OA\Property(property: 'filter', ref: CaseFilterFields::class),
            new OA\Property(property: 'requirement_id', type: 'string', format: 'uuid', nullable: true),
            new OA\Property(property: 'add', type: 'array', items: new OA\Items(type: 'string')),
            new OA\Property(property: 'remove', type: 'array', items: new OA\Items(type: 'string')),
            new OA\Property(property: 'seen', type: 'string', description: 'The state that one saw; needed to change name or rule'),
        ],
    ),
]
final class SuiteRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'name' => ['required', 'string', 'max:120'],
            'kind' => ['nullable', 'in:picked,rule,requirement'],
            ...CaseFilterFields::rules('filter', 'nullable', 2000),
            'requirement_id' => ['nullable', 'uuid'],
            'add' => ['nullable', 'array', 'max:5000'],
            'add.*' => ['uuid'],
            'remove' => ['nullable', 'array', 'max:5000'],
            'remove.*' => ['uuid'],
            'seen' => ['nullable', 'string', 'max:64'],
        ];
    }
}
