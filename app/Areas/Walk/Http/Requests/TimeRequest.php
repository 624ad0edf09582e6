<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use LucidStep\App\Support\Http\DurationRule;
use OpenApi\Attributes as OA;

/**
 * A corrected time, as people write it.
 */
#[
    OA\Schema(
        required: ['time'],
        properties: [
            new OA\Property(property: 'time', type: 'string'),
            new OA\Property(property: 'device_time', type: 'string', nullable: true),
            new OA\Property(property: 'sent_at', type: 'string', nullable: true),
            new OA\Property(property: 'counter', type: 'integer', nullable: true),
        ],
    ),
]
final class TimeRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'time' => ['required', 'string', 'max:40', new DurationRule()],
            ...self::STAMP,
        ];
    }
}
