<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * Axes with their values, and pairs of values that cannot meet.
 */
#[
    OA\Schema(
        required: ['axes'],
        properties: [
            new OA\Property(property: 'axes', type: 'array', items: new OA\Items(type: 'object', additionalProperties: true)),
            new OA\Property(property: 'forbidden', type: 'array', items: new OA\Items(type: 'object', additionalProperties: true)),
            new OA\Property(property: 'seen', type: 'string', description: 'The state that one saw'),
        ],
    ),
]
final class AxesRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'axes' => ['present', 'array', 'max:12'],
            'axes.*.id' => ['nullable', 'uuid'],
            'axes.*.name' => ['required', 'string', 'max:80'],
            'axes.*.values' => ['required', 'array', 'max:60'],
            'axes.*.values.*.id' => ['nullable', 'uuid'],
            'axes.*.values.*.name' => ['required', 'string', 'max:80'],
            'forbidden' => ['nullable', 'array', 'max:500'],
            'forbidden.*.axis' => ['required', 'string', 'max:80'],
            'forbidden.*.value' => ['required', 'string', 'max:80'],
            'forbidden.*.other_axis' => ['required', 'string', 'max:80'],
            'forbidden.*.other_value' => ['required', 'string', 'max:80'],
            'seen' => ['nullable', 'string', 'max:64'],
        ];
    }
}
