<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * A filter of defects to keep, with how its list is shown.
 */
#[
    OA\Schema(
        required: ['name', 'filter'],
        properties: [
            new OA\Property(property: 'name', type: 'string'),
            new OA\Property(property: 'shared', type: 'boolean'),
            new OA\Property(
                property: 'filter',
                type: 'object',
                description: 'As in the address of the list, with `sort`, `group`, `columns` and `as`',
                additionalProperties: new OA\AdditionalProperties(type: 'string'),
            ),
        ],
    ),
]
final class DefectFilterRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'name' => ['required', 'string', 'max:120'],
            'shared' => ['nullable', 'boolean'],
            'filter' => ['present', 'array', 'max:40'],
            'filter.*' => ['nullable', 'string', 'max:2000'],
        ];
    }
}
