<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * The fields that a project adds to its cases, in order.
 */
#[
    OA\Schema(
        required: ['fields'],
        properties: [
            new OA\Property(
                property: 'fields',
                type: 'array',
                items: new OA\Items(
                    type: 'object',
                    required: ['name', 'kind'],
                    properties: [
                        new OA\Property(property: 'id', type: 'string', nullable: true),
                        new OA\Property(property: 'name', type: 'string'),
                        new OA\Property(property: 'kind', type: 'string', enum: ['text', 'number', 'date', 'choice', 'yes_no']),
                        new OA\Property(property: 'choices', type: 'array', items: new OA\Items(type: 'string')),
                        new OA\Property(property: 'required', type: 'boolean'),
                    ],
                ),
            ),
            new OA\Property(property: 'seen', type: 'string', description: 'The state that one saw'),
        ],
    ),
]
final class FieldsRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'fields' => ['present', 'array', 'max:40'],
            'fields.*.id' => ['nullable', 'uuid'],
            'fields.*.name' => ['nullable', 'string', 'max:60'],
            'fields.*.kind' => ['nullable', 'string', 'max:12'],
            'fields.*.choices' => ['nullable', 'array', 'max:200'],
            'fields.*.choices.*' => ['string', 'max:120'],
            'fields.*.required' => ['nullable', 'boolean'],
            'seen' => ['nullable', 'string', 'max:64'],
        ];
    }
}
