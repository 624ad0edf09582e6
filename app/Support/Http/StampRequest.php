<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Http;

use OpenApi\Attributes as OA;

/**
 * Nothing but when the device did it.
 */
#[
    OA\Schema(
        properties: [
            new OA\Property(property: 'device_time', type: 'string', nullable: true),
            new OA\Property(property: 'sent_at', type: 'string', nullable: true),
            new OA\Property(property: 'counter', type: 'integer', nullable: true),
        ],
    ),
]
final class StampRequest extends ApiRequest
{
    public function rules(): array
    {
        return [...self::STAMP];
    }
}
