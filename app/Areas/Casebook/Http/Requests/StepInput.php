<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Requests;

use OpenApi\Attributes as OA;

/**
 * A step as it is sent: three texts, or the use of a routine.
 */
#[
    OA\Schema(
        required: [],
        properties: [
            new OA\Property(property: 'action', type: 'string'),
            new OA\Property(property: 'data', type: 'string'),
            new OA\Property(property: 'expected', type: 'string'),
            new OA\Property(property: 'routine', type: 'string', format: 'uuid', nullable: true),
            new OA\Property(property: 'values', type: 'object', additionalProperties: new OA\AdditionalProperties(type: 'string')),
            new OA\Property(property: 'files', type: 'array', items: new OA\Items(ref: '#/components/schemas/FileRef')),
        ],
    ),
]
final class StepInput {}
