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
        properties: [
            new OA\Property(property: 'attempt_id', type: 'string', format: 'uuid', nullable: true, description: 'The walk'),
            new OA\Property(property: 'round', type: 'integer', nullable: true),
            new OA\Property(property: 'step', type: 'integer', nullable: true),
            new OA\Property(
                property: 'line_id',
                type: 'string',
                format: 'uuid',
                nullable: true,
                description: 'Or the line of a session that shows it',
            ),
            new OA\Property(
                property: 'captures',
                type: 'array',
                description: 'Captures of that session to go with it, by line',
                items: new OA\Items(type: 'string', format: 'uuid'),
            ),
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
            'attempt_id' => ['nullable', 'uuid', 'required_without:line_id'],
            'round' => ['nullable', 'integer', 'min:1', 'max:100000'],
            'step' => ['nullable', 'integer', 'min:1', 'max:100000'],
            'line_id' => ['nullable', 'uuid'],
            'captures' => ['array', 'max:200'],
            'captures.*' => ['uuid'],
            ...self::STAMP,
        ];
    }

    public function messages(): array
    {
        return ['attempt_id.required_without' => 'Say on which walk it was met, or in which session.'];
    }

    /**
     * @return list<string>
     */
    public function captures(): array
    {
        return array_values(array_map(strval(...), (array) $this->validated('captures', [])));
    }
}
