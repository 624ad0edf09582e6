<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Requests;

use LucidStep\App\Areas\Walk\Commands\IdleTimeCommand;
use OpenApi\Attributes as OA;

/**
 * How much of a time without a sign of the tester was work, in ms.
 */
#[
    OA\Schema(
        required: ['away_ms', 'counted_ms'],
        properties: [
            new OA\Property(property: 'away_ms', type: 'integer'),
            new OA\Property(property: 'counted_ms', type: 'integer'),
            new OA\Property(property: 'device_time', type: 'string'),
            new OA\Property(property: 'sent_at', type: 'string'),
            new OA\Property(property: 'counter', type: 'integer'),
        ],
    ),
]
final class IdleTimeRequest extends CommandRequest
{
    public function rules(): array
    {
        return [
            'away_ms' => ['required', 'integer', 'min:1', 'max:604800000'],
            'counted_ms' => ['required', 'integer', 'min:0', 'max:86400000'],
            ...self::STAMP,
        ];
    }

    public function command(): IdleTimeCommand
    {
        return IdleTimeCommand::fromPayload($this->payload());
    }
}
