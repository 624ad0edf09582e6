<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Http\Requests;

use LucidStep\App\Areas\Defects\Data\TrackerFields;
use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * The tracker outside; what is left out stays.
 */
#[
    OA\Schema(
        properties: [
            new OA\Property(property: 'address', type: 'string', description: 'Where its API begins'),
            new OA\Property(property: 'token', type: 'string', nullable: true, description: 'Kept encrypted, and never shown again'),
            new OA\Property(property: 'enabled', type: 'boolean'),
            new OA\Property(property: 'sends_each', type: 'boolean', description: 'Every defect goes there by itself'),
            new OA\Property(property: 'mapping', ref: TrackerFields::class),
        ],
    ),
]
final class TrackerRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'address' => ['filled', 'string', 'max:500'],
            'token' => ['nullable', 'string', 'max:2000'],
            'enabled' => ['boolean'],
            'sends_each' => ['boolean'],
            'mapping' => ['array', 'max:6'],
            'mapping.*' => ['array', 'max:40'],
            'mapping.*.*' => ['nullable', 'string', 'max:500'],
        ];
    }

    public function messages(): array
    {
        return ['address.filled' => 'Say where the tracker is.'];
    }
}
