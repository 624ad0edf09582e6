<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use LucidStep\App\Support\Http\UuidList;
use OpenApi\Attributes as OA;

/**
 * The time that is left, and what must be in or stays out.
 */
#[
    OA\Schema(
        required: ['minutes'],
        properties: [
            new OA\Property(property: 'minutes', type: 'integer'),
            new OA\Property(property: 'in', type: 'array', items: new OA\Items(type: 'string', format: 'uuid')),
            new OA\Property(property: 'out', type: 'array', items: new OA\Items(type: 'string', format: 'uuid')),
            new OA\Property(property: 'people', type: 'array', items: new OA\Items(type: 'string', format: 'uuid')),
            new OA\Property(property: 'apply', type: 'boolean'),
        ],
    ),
]
final class ShortTimeRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'minutes' => ['required', 'integer', 'between:1,600000'],
            'in' => ['nullable', 'array', 'max:50000', new UuidList()],
            'out' => ['nullable', 'array', 'max:50000', new UuidList()],
            'people' => ['nullable', 'array', 'max:500'],
            'people.*' => ['uuid'],
            'apply' => ['nullable', 'boolean'],
        ];
    }
}
