<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * The picture without what it must not show.
 */
#[
    OA\Schema(
        required: ['file'],
        properties: [
            new OA\Property(property: 'file', type: 'string', format: 'binary'),
            new OA\Property(property: 'device_time', type: 'string', nullable: true),
            new OA\Property(property: 'sent_at', type: 'string', nullable: true),
            new OA\Property(property: 'counter', type: 'integer', nullable: true),
        ],
    ),
]
final class RedactRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'file' => ['required', 'file'],
            ...self::STAMP,
        ];
    }
}
