<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * Starts or goes on with an attempt; `again` abandons the open one.
 */
#[
    OA\Schema(
        properties: [
            new OA\Property(property: 'again', type: 'boolean', nullable: true),
            new OA\Property(property: 'word', type: 'string', nullable: true),
            new OA\Property(property: 'build_id', type: 'string', format: 'uuid', nullable: true),
            new OA\Property(property: 'configuration_id', type: 'string', format: 'uuid', nullable: true),
            new OA\Property(property: 'environment_id', type: 'string', format: 'uuid', nullable: true),
            new OA\Property(property: 'environment', type: 'string', nullable: true),
            new OA\Property(property: 'device_time', type: 'string', nullable: true),
            new OA\Property(property: 'sent_at', type: 'string', nullable: true),
            new OA\Property(property: 'counter', type: 'integer', nullable: true),
        ],
    ),
]
final class StartAttemptRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'again' => ['nullable', 'boolean'],
            'word' => self::WORDS,
            'build_id' => ['nullable', 'uuid'],
            'configuration_id' => ['nullable', 'uuid'],
            'environment_id' => ['nullable', 'uuid'],
            'environment' => ['nullable', 'string', 'max:500'],
            ...self::STAMP,
        ];
    }
}
