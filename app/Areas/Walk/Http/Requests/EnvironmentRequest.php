<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Requests;

use LucidStep\App\Areas\Walk\Commands\EnvironmentCommand;
use OpenApi\Attributes as OA;

/**
 * What an attempt is really walked on. What is not said stays as it is.
 */
#[
    OA\Schema(
        properties: [
            new OA\Property(property: 'build_id', type: 'string', format: 'uuid', nullable: true),
            new OA\Property(property: 'configuration_id', type: 'string', format: 'uuid', nullable: true),
            new OA\Property(property: 'environment_id', type: 'string', format: 'uuid', nullable: true),
            new OA\Property(property: 'environment', type: 'string', description: 'More of it, in words'),
            new OA\Property(property: 'device_time', type: 'string'),
            new OA\Property(property: 'sent_at', type: 'string'),
            new OA\Property(property: 'counter', type: 'integer'),
        ],
    ),
]
final class EnvironmentRequest extends CommandRequest
{
    public function rules(): array
    {
        return [
            'build_id' => ['nullable', 'uuid'],
            'configuration_id' => ['nullable', 'uuid'],
            'environment_id' => ['nullable', 'uuid'],
            'environment' => ['nullable', 'string', 'max:500'],
            ...self::STAMP,
        ];
    }

    public function command(): EnvironmentCommand
    {
        return EnvironmentCommand::fromPayload($this->payload());
    }
}
