<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * How configurations are made of the axes.
 */
#[
    OA\Schema(
        required: ['how'],
        properties: [
            new OA\Property(property: 'how', type: 'string', enum: ['all', 'pairs', 'one']),
            new OA\Property(property: 'values', type: 'object', additionalProperties: new OA\AdditionalProperties(type: 'string')),
            new OA\Property(property: 'name', type: 'string'),
        ],
    ),
]
final class ConfigurationsRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'how' => ['required', 'in:all,pairs,one'],
            'values' => ['nullable', 'array'],
            'values.*' => ['nullable', 'string', 'max:80'],
            'name' => ['nullable', 'string', 'max:200'],
        ];
    }
}
