<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * Where a defect was met again.
 */
#[
    OA\Schema(
        required: ['attempt_id'],
        properties: [
            new OA\Property(property: 'attempt_id', type: 'string', format: 'uuid'),
            new OA\Property(property: 'round', type: 'integer', nullable: true),
            new OA\Property(property: 'step', type: 'integer', nullable: true),
            new OA\Property(property: 'device_time', type: 'string', nullable: true),
            new OA\Property(property: 'sent_at', type: 'string', nullable: true),
            new OA\Property(property: 'counter', type: 'integer', nullable: true),
        ],
    ),
]
final class LinkDefectRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'attempt_id' => ['required', 'uuid'],
            'round' => ['nullable', 'integer', 'min:1', 'max:100000'],
            'step' => ['nullable', 'integer', 'min:1', 'max:100000'],
            ...self::STAMP,
        ];
    }
}
