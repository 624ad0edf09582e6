<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * The reference picture, by its SHA-256.
 */
#[OA\Schema(required: ['reference'], properties: [
    new OA\Property(property: 'reference', type: 'string'),
    new OA\Property(property: 'device_time', type: 'string'),
    new OA\Property(property: 'sent_at', type: 'string'),
    new OA\Property(property: 'counter', type: 'integer'),
])]
final class CompareRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'reference' => ['required', 'string', 'size:64'],
            ...self::STAMP,
        ];
    }
}
