<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use LucidStep\App\Support\Http\UuidList;
use OpenApi\Attributes as OA;

/**
 * Who gets what is unassigned: balanced, or by shares.
 */
#[
    OA\Schema(
        required: ['people'],
        properties: [
            new OA\Property(property: 'people', type: 'array', items: new OA\Items(type: 'string', format: 'uuid')),
            new OA\Property(property: 'shares', type: 'object', additionalProperties: new OA\AdditionalProperties(type: 'number')),
            new OA\Property(property: 'ids', type: 'array', items: new OA\Items(type: 'string', format: 'uuid')),
            new OA\Property(property: 'apply', type: 'boolean'),
        ],
    ),
]
final class AssignRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'people' => ['required', 'array', 'max:500'],
            'people.*' => ['uuid'],
            'shares' => ['nullable', 'array'],
            'shares.*' => ['numeric', 'between:0,1000'],
            'ids' => ['nullable', 'array', 'max:50000', new UuidList()],
            'apply' => ['nullable', 'boolean'],
        ];
    }
}
