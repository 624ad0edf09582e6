<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Requests;

use LucidStep\App\Areas\Walk\Commands\RetryCommand;
use OpenApi\Attributes as OA;

/**
 * A try of a step that comes and goes.
 */
#[
    OA\Schema(
        required: ['round', 'step', 'failed'],
        properties: [
            new OA\Property(property: 'round', type: 'integer'),
            new OA\Property(property: 'step', type: 'integer'),
            new OA\Property(property: 'failed', type: 'boolean'),
            new OA\Property(property: 'device_time', type: 'string'),
            new OA\Property(property: 'sent_at', type: 'string'),
            new OA\Property(property: 'counter', type: 'integer'),
        ],
    ),
]
final class RetryRequest extends CommandRequest
{
    public function rules(): array
    {
        return [
            'round' => ['required', 'integer', 'min:1', 'max:100000'],
            'step' => ['required', 'integer', 'min:1', 'max:100000'],
            'failed' => ['required', 'boolean'],
            ...self::STAMP,
        ];
    }

    public function command(): RetryCommand
    {
        return RetryCommand::fromPayload($this->payload());
    }
}
