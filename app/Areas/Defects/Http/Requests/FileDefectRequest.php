<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Http\Requests;

use LucidStep\App\Areas\Defects\Data\Filing;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\SessionLine;
use LucidStep\App\Models\TestCase;
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
            new OA\Property(property: 'preconditions', type: 'string', nullable: true),
            new OA\Property(property: 'steps', type: 'string', nullable: true, description: 'Numbered, in Markdown'),
            new OA\Property(property: 'expected', type: 'string', nullable: true),
            new OA\Property(property: 'actual', type: 'string', nullable: true),
            new OA\Property(property: 'environment', type: 'string', nullable: true),
            new OA\Property(property: 'body', type: 'string', nullable: true, description: 'What else there is to say'),
            new OA\Property(property: 'severity', type: 'string', enum: ['critical', 'major', 'minor', 'trivial']),
            new OA\Property(property: 'priority', type: 'string', nullable: true, description: '`now`, `soon` or `later`'),
            new OA\Property(property: 'assignee_id', type: 'string', nullable: true, format: 'uuid'),
            new OA\Property(property: 'build_id', type: 'string', nullable: true, format: 'uuid', description: 'Else the one of the walk'),
            new OA\Property(
                property: 'configuration_id',
                type: 'string',
                nullable: true,
                format: 'uuid',
                description: 'Else that of the walk',
            ),
            new OA\Property(property: 'component', type: 'string', nullable: true, description: 'A value of the list'),
            new OA\Property(property: 'labels', type: 'string', nullable: true, description: 'Between commas; one with a comma in quotes'),
            new OA\Property(
                property: 'custom',
                type: 'object',
                description: 'Fields that the project added, by id',
                additionalProperties: new OA\AdditionalProperties(type: 'string', nullable: true),
            ),
            new OA\Property(property: 'watchers', type: 'array', items: new OA\Items(type: 'string', format: 'uuid')),
            new OA\Property(property: 'case', type: 'string', nullable: true, description: 'Key of the case it is about, if of no walk'),
            new OA\Property(property: 'attempt_id', type: 'string', nullable: true, format: 'uuid'),
            new OA\Property(property: 'round', type: 'integer', nullable: true),
            new OA\Property(property: 'step', type: 'integer', nullable: true),
            new OA\Property(
                property: 'evidence',
                type: 'array',
                nullable: true,
                description: 'What was captured there and belongs to it, by id; null: all of the step',
                items: new OA\Items(type: 'string', format: 'uuid'),
            ),
            new OA\Property(
                property: 'line_id',
                type: 'string',
                nullable: true,
                format: 'uuid',
                description: 'The line of a session that shows it, if it was met on no walk',
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
final class FileDefectRequest extends ApiRequest
{
    use DefectFieldRules;

    public function rules(): array
    {
        return [
            'id' => ['nullable', 'uuid', 'unique:defects,id'],
            'title' => ['required', 'string', 'max:300'],
            ...self::fieldRules(),
            'severity' => ['nullable', 'in:critical,major,minor,trivial'],
            'watchers' => ['array', 'max:100'],
            'watchers.*' => ['uuid'],
            'case' => ['nullable', 'string', 'max:24'],
            'attempt_id' => ['nullable', 'uuid'],
            'round' => ['nullable', 'integer', 'min:1', 'max:100000'],
            'step' => ['nullable', 'integer', 'min:1', 'max:100000'],
            'evidence' => ['nullable', 'array', 'max:200'],
            'evidence.*' => ['uuid'],
            'line_id' => ['nullable', 'uuid'],
            'captures' => ['array', 'max:200'],
            'captures.*' => ['uuid'],
            ...self::STAMP,
        ];
    }

    public function messages(): array
    {
        return ['title.required' => 'A defect needs a title.'];
    }

    /**
     * @param  ?Attempt  $from the walk that it names
     * @param  ?TestCase  $case that it names
     * @param  ?SessionLine  $seen that it names
     */
    public function filing(?Attempt $from, ?TestCase $case, ?SessionLine $seen): Filing
    {
        $all = (array) $this->validated();
        $fields = self::fieldsIn($all);
        // Nothing said of these: as it was walked, and major.
        foreach (['severity', 'build_id', 'configuration_id'] as $name) {
            if (null === ($fields[$name] ?? null)) {
                unset($fields[$name]);
            }
        }

        return new Filing(
            $fields,
            $this->filled('id') ? $this->string('id')->toString() : null,
            $from,
            $this->integer('round') ?: null,
            $this->integer('step') ?: null,
            \is_array($all['evidence'] ?? null) ? array_values(array_map(strval(...), $all['evidence'])) : null,
            $case,
            array_values(array_map(strval(...), (array) ($all['watchers'] ?? []))),
            $seen,
            array_values(array_map(strval(...), (array) ($all['captures'] ?? []))),
        );
    }
}
