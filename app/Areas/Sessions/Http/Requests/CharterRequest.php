<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Sessions\Http\Requests;

use LucidStep\App\Areas\Sessions\Actions\RunSession;
use LucidStep\App\Support\Http\ApiRequest;
use LucidStep\Core\Exchange\FieldReader;
use OpenApi\Attributes as OA;

/**
 * What is to be explored, with what, to find what.
 */
#[
    OA\Schema(
        required: ['title'],
        properties: [
            new OA\Property(property: 'title', type: 'string'),
            new OA\Property(property: 'with_what', type: 'string', nullable: true),
            new OA\Property(property: 'to_find', type: 'string', nullable: true),
            new OA\Property(property: 'folder_id', type: 'string', nullable: true, format: 'uuid'),
            new OA\Property(property: 'requirement_id', type: 'string', nullable: true, format: 'uuid'),
            new OA\Property(property: 'label', type: 'string', nullable: true),
            new OA\Property(property: 'risk', type: 'string', nullable: true),
            new OA\Property(property: 'priority', type: 'string', enum: ['critical', 'high', 'medium', 'low']),
            new OA\Property(property: 'box_minutes', type: 'integer'),
            new OA\Property(property: 'build_id', type: 'string', nullable: true, format: 'uuid'),
            new OA\Property(property: 'configuration_id', type: 'string', nullable: true, format: 'uuid'),
            new OA\Property(property: 'milestone_id', type: 'string', nullable: true, format: 'uuid'),
            new OA\Property(property: 'assignee_id', type: 'string', nullable: true, format: 'uuid'),
            new OA\Property(property: 'not_before', type: 'string', nullable: true, format: 'date'),
            new OA\Property(property: 'version', type: 'integer', nullable: true, description: 'That one saw; needed to change one'),
        ],
    ),
]
final class CharterRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'title' => ['required', 'string', 'max:500'],
            'with_what' => self::WORDS,
            'to_find' => self::WORDS,
            'folder_id' => ['nullable', 'uuid', 'prohibits:requirement_id,label'],
            'requirement_id' => ['nullable', 'uuid', 'prohibits:label'],
            'label' => ['nullable', 'string', 'max:' . FieldReader::LONGEST_LABEL],
            'risk' => ['nullable', 'string', 'max:2000'],
            'priority' => ['in:critical,high,medium,low'],
            'box_minutes' => ['integer', 'min:1', 'max:' . RunSession::LONGEST_BOX],
            'build_id' => ['nullable', 'uuid'],
            'configuration_id' => ['nullable', 'uuid'],
            'milestone_id' => ['nullable', 'uuid'],
            'assignee_id' => ['nullable', 'uuid'],
            'not_before' => ['nullable', 'date_format:Y-m-d'],
            'version' => ['nullable', 'integer', 'min:1'],
        ];
    }

    public function messages(): array
    {
        return [
            'title.required' => 'Say what is to be explored.',
            'box_minutes' => 'A time box has 1 to 1440 minutes.',
            '*.prohibits' => 'Choose one area: a folder, a requirement or a label.',
        ];
    }

    /**
     * @return array<string, mixed> by column, what was left out as nothing
     */
    public function fields(): array
    {
        $texts = ['title', 'with_what', 'to_find', 'label', 'risk'];
        $said = array_diff_key((array) $this->validated(), ['version' => 0]);

        return [
            ...array_map(static fn(mixed $v): string => trim((string) $v), array_intersect_key($said, array_flip($texts))),
            ...array_diff_key($said, array_flip($texts)),
        ];
    }
}
