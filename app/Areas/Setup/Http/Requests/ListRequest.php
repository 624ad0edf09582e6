<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * A list of types or priorities, in order.
 */
#[
    OA\Schema(
        required: ['items'],
        properties: [
            new OA\Property(
                property: 'items',
                type: 'array',
                items: new OA\Items(
                    type: 'object',
                    required: ['name'],
                    properties: [
                        new OA\Property(property: 'value', type: 'string', nullable: true),
                        new OA\Property(property: 'name', type: 'string'),
                        new OA\Property(property: 'weight', type: 'integer'),
                    ],
                ),
            ),
            new OA\Property(property: 'seen', type: 'string', description: 'The state that one saw'),
        ],
    ),
]
final class ListRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'items' => ['present', 'array', 'max:100'],
            'items.*.value' => ['nullable', 'string', 'max:60'],
            'items.*.name' => ['nullable', 'string', 'max:60'],
            'items.*.weight' => ['nullable', 'integer', 'min:1', 'max:100'],
            'seen' => ['nullable', 'string', 'max:64'],
        ];
    }
}
