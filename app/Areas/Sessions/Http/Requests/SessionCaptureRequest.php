<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * A capture, with words or without.
 */
#[
    OA\Schema(
        required: ['file', 'id'],
        properties: [
            new OA\Property(property: 'file', type: 'string', format: 'binary'),
            new OA\Property(property: 'id', type: 'string', format: 'uuid', description: 'As the device chose it'),
            new OA\Property(property: 'name', type: 'string', nullable: true),
            new OA\Property(property: 'words', type: 'string', nullable: true),
            new OA\Property(property: 'device_time', type: 'string', nullable: true),
            new OA\Property(property: 'sent_at', type: 'string', nullable: true),
            new OA\Property(property: 'counter', type: 'integer', nullable: true),
        ],
    ),
]
final class SessionCaptureRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'file' => ['required', 'file'],
            'id' => ['required', 'uuid'],
            'name' => ['nullable', 'string', 'max:200'],
            'words' => self::WORDS,
            ...self::STAMP,
        ];
    }
}
