<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * Where a session is to go.
 */
#[
    OA\Schema(
        required: ['to'],
        properties: [
            new OA\Property(property: 'to', type: 'string', enum: ['running', 'paused', 'stopped']),
            new OA\Property(property: 'device_time', type: 'string', nullable: true),
            new OA\Property(property: 'sent_at', type: 'string', nullable: true),
            new OA\Property(property: 'counter', type: 'integer', nullable: true),
        ],
    ),
]
final class MoveSessionRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'to' => ['required', 'in:running,paused,stopped'],
            ...self::STAMP,
        ];
    }
}
