<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * An attempt that a device began while the server was away.
 */
#[
    OA\Schema(
        required: ['id', 'case_version_id'],
        properties: [
            new OA\Property(property: 'id', type: 'string', format: 'uuid'),
            new OA\Property(property: 'case_version_id', type: 'string', format: 'uuid'),
            new OA\Property(property: 'device_time', type: 'string'),
            new OA\Property(property: 'sent_at', type: 'string'),
            new OA\Property(property: 'counter', type: 'integer'),
        ],
    ),
]
final class DeviceAttemptRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'id' => ['required', 'uuid'],
            'case_version_id' => ['required', 'uuid'],
            ...self::STAMP,
        ];
    }
}
