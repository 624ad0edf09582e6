<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Requests;

use LucidStep\App\Areas\Walk\Commands\RoundCommand;
use OpenApi\Attributes as OA;

/**
 * Leaves a round out, takes it up again, or walks its row once more.
 */
#[
    OA\Schema(
        required: ['round', 'act'],
        properties: [
            new OA\Property(property: 'round', type: 'integer'),
            new OA\Property(property: 'act', type: 'string', enum: ['skip', 'take_up', 'repeat']),
            new OA\Property(property: 'reason', type: 'string'),
            new OA\Property(property: 'device_time', type: 'string'),
            new OA\Property(property: 'sent_at', type: 'string'),
            new OA\Property(property: 'counter', type: 'integer'),
        ],
    ),
]
final class RoundRequest extends CommandRequest
{
    public function rules(): array
    {
        return [
            'round' => ['required', 'integer', 'min:1', 'max:100000'],
            'act' => ['required', 'in:skip,take_up,repeat'],
            'reason' => ['nullable', 'string', 'max:2000'],
            ...self::STAMP,
        ];
    }

    public function command(): RoundCommand
    {
        return RoundCommand::fromPayload($this->payload());
    }
}
