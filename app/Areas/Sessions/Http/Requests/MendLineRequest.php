<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * What a line is to say, and whether it is pinned; what is left out stays.
 */
#[
    OA\Schema(
        properties: [
            new OA\Property(property: 'words', type: 'string', nullable: true),
            new OA\Property(property: 'pinned', type: 'boolean'),
            new OA\Property(property: 'device_time', type: 'string', nullable: true),
            new OA\Property(property: 'sent_at', type: 'string', nullable: true),
            new OA\Property(property: 'counter', type: 'integer', nullable: true),
        ],
    ),
]
final class MendLineRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'words' => self::WORDS,
            'pinned' => ['boolean'],
            ...self::STAMP,
        ];
    }
}
