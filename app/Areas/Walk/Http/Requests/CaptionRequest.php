<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * A caption; an empty one removes it.
 */
#[OA\Schema(properties: [
    new OA\Property(property: 'caption', type: 'string', nullable: true),
    new OA\Property(property: 'device_time', type: 'string', nullable: true),
    new OA\Property(property: 'sent_at', type: 'string', nullable: true),
    new OA\Property(property: 'counter', type: 'integer', nullable: true),
])]
final class CaptionRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'caption' => ['present', 'nullable', 'string', 'max:500'],
            ...self::STAMP,
        ];
    }
}
