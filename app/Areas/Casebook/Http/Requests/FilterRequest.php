<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * A filter to keep.
 */
#[
    OA\Schema(
        required: ['name', 'filter'],
        properties: [
            new OA\Property(property: 'name', type: 'string'),
            new OA\Property(property: 'shared', type: 'boolean'),
            new OA\Property(property: 'filter', ref: CaseFilterFields::class),
        ],
    ),
]
final class FilterRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'name' => ['required', 'string', 'max:120'],
            'shared' => ['nullable', 'boolean'],
            ...CaseFilterFields::rules('filter', 'required', 2000, ['sort', 'group']),
        ];
    }
}
