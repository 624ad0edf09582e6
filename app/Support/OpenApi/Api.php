<?php

declare(strict_types=1);

namespace LucidStep\App\Support\OpenApi;

use OpenApi\Attributes as OA;

/**
 * The head of the API's description, and the error all operations share.
 */
#[OA\OpenApi(openapi: '3.1.0')]
#[
    OA\Info(
        version: '1',
        title: 'Lucid Step',
        description: 'The interface of Lucid Step for its own pages and for programs. Times are ISO 8601 in UTC, durations ' .
            'whole milliseconds.',
    ),
]
#[OA\Server(url: '/api/v1')]
#[
    OA\Schema(
        schema: 'Problem',
        description: 'An error (RFC 9457).',
        required: ['type', 'title', 'status', 'detail'],
        properties: [
            new OA\Property(property: 'type', type: 'string'),
            new OA\Property(property: 'title', type: 'string'),
            new OA\Property(property: 'status', type: 'integer'),
            new OA\Property(property: 'detail', type: 'string'),
            new OA\Property(
                property: 'errors',
                type: 'object',
                additionalProperties: new OA\AdditionalProperties(type: 'array', items: new OA\Items(type: 'string')),
            ),
        ],
    ),
]
final class Api {}
