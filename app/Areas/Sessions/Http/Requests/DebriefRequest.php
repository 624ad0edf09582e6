<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * What its tester says after a session.
 */
#[
    OA\Schema(
        properties: [
            new OA\Property(property: 'covered', type: 'string', nullable: true),
            new OA\Property(property: 'remarks', type: 'string', nullable: true),
            new OA\Property(property: 'device_time', type: 'string', nullable: true),
            new OA\Property(property: 'sent_at', type: 'string', nullable: true),
            new OA\Property(property: 'counter', type: 'integer', nullable: true),
        ],
    ),
]
final class DebriefRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'covered' => ['nullable', 'string', 'max:20000'],
            'remarks' => ['nullable', 'string', 'max:20000'],
            ...self::STAMP,
        ];
    }
}
