<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * What the time of a session goes to from now on.
 */
#[
    OA\Schema(
        required: ['to'],
        properties: [
            new OA\Property(property: 'to', type: 'string', enum: ['charter', 'opportunity', 'testing', 'investigating', 'setting_up']),
            new OA\Property(property: 'device_time', type: 'string', nullable: true),
            new OA\Property(property: 'sent_at', type: 'string', nullable: true),
            new OA\Property(property: 'counter', type: 'integer', nullable: true),
        ],
    ),
]
final class SwitchRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'to' => ['required', 'in:charter,opportunity,testing,investigating,setting_up'],
            ...self::STAMP,
        ];
    }
}
