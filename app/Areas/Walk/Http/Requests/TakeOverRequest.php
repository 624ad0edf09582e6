<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * A word to the person whose attempt is taken over.
 */
#[
    OA\Schema(
        properties: [
            new OA\Property(property: 'word', type: 'string'),
            new OA\Property(property: 'device_time', type: 'string'),
            new OA\Property(property: 'sent_at', type: 'string'),
            new OA\Property(property: 'counter', type: 'integer'),
        ],
    ),
]
final class TakeOverRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'word' => ['nullable', 'string', 'max:2000'],
            ...self::STAMP,
        ];
    }
}
