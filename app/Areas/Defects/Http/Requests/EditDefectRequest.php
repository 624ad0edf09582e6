<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Http\Requests;

use Illuminate\Validation\ValidationException;
use LucidStep\App\Support\Http\ApiRequest;
use LucidStep\Core\Defects\DefectField;
use OpenApi\Attributes as OA;

/**
 * What a defect is to say; what is left out stays. With each field goes what it was when one began.
 */
#[
    OA\Schema(
        required: ['was'],
        properties: [
            new OA\Property(property: 'title', type: 'string'),
            new OA\Property(property: 'body', type: 'string', nullable: true),
            new OA\Property(property: 'expected', type: 'string', nullable: true),
            new OA\Property(property: 'actual', type: 'string', nullable: true),
            new OA\Property(property: 'severity', type: 'string', enum: ['critical', 'major', 'minor', 'trivial']),
            new OA\Property(property: 'priority', type: 'string', nullable: true, enum: ['now', 'soon', 'later']),
            new OA\Property(property: 'assignee_id', type: 'string', nullable: true, format: 'uuid'),
            new OA\Property(
                property: 'was',
                type: 'object',
                description: 'The same fields as one saw them',
                additionalProperties: new OA\AdditionalProperties(type: 'string', nullable: true),
            ),
        ],
    ),
]
final class EditDefectRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'title' => ['filled', 'string', 'max:300'],
            'body' => ['nullable', 'string', 'max:100000'],
            'expected' => self::WORDS,
            'actual' => self::WORDS,
            'severity' => ['in:critical,major,minor,trivial'],
            'priority' => ['nullable', 'in:now,soon,later'],
            'assignee_id' => ['nullable', 'uuid'],
            'was' => ['present', 'array', 'max:20'],
            'was.*' => ['nullable', 'string', 'max:100000'],
        ];
    }

    public function messages(): array
    {
        return ['title.filled' => 'A defect needs a title.'];
    }

    /**
     * @throws ValidationException when it does not say what a field was
     * @return array{array<string, ?string>, array<value-of<DefectField>, ?string>} what each field was, and what it is to be
     */
    public function edit(): array
    {
        $was = $is = [];
        $all = (array) $this->validated();
        foreach (DefectField::cases() as $field) {
            $name = $field->value;
            if (!\array_key_exists($name, $all)) {
                continue;
            }
            if (!\array_key_exists($name, (array) $all['was'])) {
                throw ValidationException::withMessages(["was.{$name}" => 'Say what it was when you began.']);
            }
            $empty = $field->isWords() ? '' : null;
            $is[$name] = null === $all[$name] ? $empty : trim((string) $all[$name]);
            $before = $all['was'][$name];
            $was[$name] = null === $before ? $empty : (string) $before;
        }

        return [$was, $is];
    }
}
