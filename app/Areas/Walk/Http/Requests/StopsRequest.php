<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * What needs the pass of an entry is to be stopped.
 */
#[
    OA\Schema(
        properties: [
            new OA\Property(
                property: 'if_any',
                description: 'No fault when nothing needs it: whoever asked was away and could not see.',
                type: 'boolean',
            ),
            new OA\Property(property: 'device_time', type: 'string'),
            new OA\Property(property: 'sent_at', type: 'string'),
            new OA\Property(property: 'counter', type: 'integer'),
        ],
    ),
]
final class StopsRequest extends ApiRequest
{
    public function rules(): array
    {
        return ['if_any' => ['nullable', 'boolean'], ...self::STAMP];
    }
}
