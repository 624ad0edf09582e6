<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * A line for the timeline.
 */
#[
    OA\Schema(
        required: ['id', 'kind', 'words'],
        properties: [
            new OA\Property(property: 'id', type: 'string', format: 'uuid', description: 'As the device chose it'),
            new OA\Property(property: 'kind', type: 'string', enum: ['note', 'question', 'idea', 'risk', 'issue']),
            new OA\Property(property: 'words', type: 'string', description: 'Markdown'),
            new OA\Property(property: 'pinned', type: 'boolean'),
            new OA\Property(property: 'device_time', type: 'string', nullable: true),
            new OA\Property(property: 'sent_at', type: 'string', nullable: true),
            new OA\Property(property: 'counter', type: 'integer', nullable: true),
        ],
    ),
]
final class LineRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'id' => ['required', 'uuid'],
            'kind' => ['required', 'in:note,question,idea,risk,issue'],
            'words' => ['required', 'string', 'max:10000'],
            'pinned' => ['boolean'],
            ...self::STAMP,
        ];
    }

    public function messages(): array
    {
        return ['words.required' => 'Write what you saw.'];
    }
}
