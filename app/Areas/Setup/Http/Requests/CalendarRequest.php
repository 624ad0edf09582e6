<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * When a project works.
 */
#[
    OA\Schema(
        required: ['working_days', 'time_zone'],
        properties: [
            new OA\Property(property: 'working_days', type: 'array', items: new OA\Items(type: 'integer')),
            new OA\Property(property: 'holidays', type: 'array', items: new OA\Items(type: 'string')),
            new OA\Property(property: 'time_zone', type: 'string'),
            new OA\Property(property: 'seen', type: 'string', description: 'The state that one saw'),
        ],
    ),
]
final class CalendarRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'working_days' => ['required', 'array', 'min:1', 'max:7'],
            'working_days.*' => ['integer', 'between:1,7'],
            'holidays' => ['nullable', 'array', 'max:400'],
            'holidays.*' => ['date_format:Y-m-d'],
            'time_zone' => ['required', 'timezone'],
            'seen' => ['nullable', 'string', 'max:64'],
        ];
    }
}
