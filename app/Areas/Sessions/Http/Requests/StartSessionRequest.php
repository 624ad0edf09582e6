<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * A session of a charter, and what it runs on.
 */
#[
    OA\Schema(
        required: ['id'],
        properties: [
            new OA\Property(property: 'id', type: 'string', format: 'uuid', description: 'As the device chose it'),
            new OA\Property(
                property: 'build_id',
                type: 'string',
                nullable: true,
                format: 'uuid',
                description: 'Left out: as the charter says',
            ),
            new OA\Property(property: 'configuration_id', type: 'string', nullable: true, format: 'uuid'),
            new OA\Property(property: 'environment', type: 'string', nullable: true),
            new OA\Property(property: 'device_time', type: 'string', nullable: true),
            new OA\Property(property: 'sent_at', type: 'string', nullable: true),
            new OA\Property(property: 'counter', type: 'integer', nullable: true),
        ],
    ),
]
final class StartSessionRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'id' => ['required', 'uuid'],
            'build_id' => ['nullable', 'uuid'],
            'configuration_id' => ['nullable', 'uuid'],
            'environment' => ['nullable', 'string', 'max:500'],
            ...self::STAMP,
        ];
    }
}
