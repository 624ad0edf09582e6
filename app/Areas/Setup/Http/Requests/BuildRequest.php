<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * A build.
 */
#[
    OA\Schema(
        required: ['name'],
        properties: [
            new OA\Property(property: 'name', type: 'string'),
            new OA\Property(property: 'release_id', type: 'string', format: 'uuid', nullable: true),
        ],
    ),
]
final class BuildRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'name' => ['required', 'string', 'max:120'],
            'release_id' => ['nullable', 'uuid'],
        ];
    }
}
