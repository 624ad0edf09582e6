<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * How much a person can walk.
 */
#[
    OA\Schema(
        required: ['minutes_per_day'],
        properties: [
            new OA\Property(property: 'minutes_per_day', type: 'integer'),
            new OA\Property(property: 'days_off', type: 'array', items: new OA\Items(type: 'string')),
            new OA\Property(property: 'seen', type: 'string', description: 'The state that one saw'),
        ],
    ),
]
final class CapacityRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'minutes_per_day' => ['required', 'integer', 'between:0,1440'],
            'days_off' => ['nullable', 'array', 'max:400'],
            'days_off.*' => ['date_format:Y-m-d'],
            'seen' => ['nullable', 'string', 'max:64'],
        ];
    }
}
