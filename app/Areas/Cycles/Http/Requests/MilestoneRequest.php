<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * A milestone.
 */
#[
    OA\Schema(
        required: ['name', 'due_on'],
        properties: [
            new OA\Property(property: 'name', type: 'string'),
            new OA\Property(property: 'type', type: 'string'),
            new OA\Property(property: 'description', type: 'string'),
            new OA\Property(property: 'due_on', type: 'string', format: 'date'),
            new OA\Property(property: 'seen', type: 'string', description: 'The state that one saw; needed to change one'),
        ],
    ),
]
final class MilestoneRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'name' => ['required', 'string', 'max:200'],
            'type' => ['nullable', 'string', 'max:60'],
            'description' => ['nullable', 'string', 'max:20000'],
            'due_on' => ['required', 'date_format:Y-m-d'],
            'seen' => ['nullable', 'string', 'max:64'],
        ];
    }
}
