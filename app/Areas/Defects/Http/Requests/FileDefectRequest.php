<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * A defect, with where it came from.
 */
#[
    OA\Schema(
        required: ['title'],
        properties: [
            new OA\Property(property: 'id', type: 'string', nullable: true, format: 'uuid'),
            new OA\Property(property: 'title', type: 'string'),
            new OA\Property(property: 'body', type: 'string', nullable: true),
            new OA\Property(property: 'expected', type: 'string', nullable: true),
            new OA\Property(property: 'actual', type: 'string', nullable: true),
            new OA\Property(property: 'severity', type: 'string', nullable: true, enum: ['critical', 'major', 'minor', 'trivial']),
            new OA\Property(property: 'attempt_id', type: 'string', nullable: true, format: 'uuid'),
            new OA\Property(property: 'round', type: 'integer', nullable: true),
            new OA\Property(property: 'step', type: 'integer', nullable: true),
            new OA\Property(property: 'device_time', type: 'string', nullable: true),
            new OA\Property(property: 'sent_at', type: 'string', nullable: true),
            new OA\Property(property: 'counter', type: 'integer', nullable: true),
        ],
    ),
]
final class FileDefectRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'id' => ['nullable', 'uuid', 'unique:defects,id'],
            'title' => ['required', 'string', 'max:300'],
            'body' => ['nullable', 'string', 'max:100000'],
            'expected' => self::WORDS,
            'actual' => self::WORDS,
            'severity' => ['nullable', 'in:critical,major,minor,trivial'],
            'attempt_id' => ['nullable', 'uuid'],
            'round' => ['nullable', 'integer', 'min:1', 'max:100000'],
            'step' => ['nullable', 'integer', 'min:1', 'max:100000'],
            ...self::STAMP,
        ];
    }

    public function messages(): array
    {
        return ['title.required' => 'A defect needs a title.'];
    }
}
