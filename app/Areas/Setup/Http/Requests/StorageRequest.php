<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * How much evidence a project keeps, and for how long.
 */
#[
    OA\Schema(
        properties: [
            new OA\Property(property: 'limit_mb', type: 'integer'),
            new OA\Property(property: 'retention_days', type: 'integer'),
            new OA\Property(property: 'seen', type: 'string', description: 'The state that one saw'),
        ],
    ),
]
final class StorageRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'limit_mb' => ['nullable', 'integer', 'min:1', 'max:100000000'],
            'retention_days' => ['nullable', 'integer', 'min:1', 'max:36500'],
            'seen' => ['nullable', 'string', 'max:64'],
        ];
    }
}
