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
            new OA\Property(property: 'preconditions', type: 'string', nullable: true),
            new OA\Property(property: 'steps', type: 'string', nullable: true),
            new OA\Property(property: 'expected', type: 'string', nullable: true),
            new OA\Property(property: 'actual', type: 'string', nullable: true),
            new OA\Property(property: 'environment', type: 'string', nullable: true),
            new OA\Property(property: 'body', type: 'string', nullable: true),
            new OA\Property(property: 'severity', type: 'string', enum: ['critical', 'major', 'minor', 'trivial']),
            new OA\Property(property: 'priority', type: 'string', nullable: true, description: '`now`, `soon` or `later`'),
            new OA\Property(property: 'assignee_id', type: 'string', nullable: true, format: 'uuid'),
            new OA\Property(property: 'build_id', type: 'string', nullable: true, format: 'uuid'),
            new OA\Property(property: 'configuration_id', type: 'string', nullable: true, format: 'uuid'),
            new OA\Property(property: 'component', type: 'string', nullable: true),
            new OA\Property(property: 'labels', type: 'string', nullable: true, description: 'Between commas; one with a comma in quotes'),
            new OA\Property(
                property: 'custom',
                type: 'object',
                description: 'Fields that the project added, by id',
                additionalProperties: new OA\AdditionalProperties(type: 'string', nullable: true),
            ),
            new OA\Property(
                property: 'was',
                type: 'object',
                description: 'The same fields as one saw them',
                additionalProperties: new OA\AdditionalProperties(type: 'string', nullable: true),
            ),
            new OA\Property(
                property: 'was_custom',
                type: 'object',
                description: 'The same fields of the project as one saw them, by id',
                additionalProperties: new OA\AdditionalProperties(type: 'string', nullable: true),
            ),
        ],
    ),
]
final class EditDefectRequest extends ApiRequest
{
    use DefectFieldRules;

    public function rules(): array
    {
        return [
            'title' => ['filled', 'string', 'max:300'],
            ...self::fieldRules(),
            'was' => ['present', 'array', 'max:30'],
            'was.*' => ['nullable', 'string', 'max:100000'],
            'was_custom' => ['array', 'max:40'],
            'was_custom.*' => ['nullable', 'string', 'max:2000'],
        ];
    }

    public function messages(): array
    {
        return ['title.filled' => 'A defect needs a title.'];
    }

    /**
     * @throws ValidationException when it does not say what a field was
     * @return array{array<string, ?string>, array<string, ?string>} what each field was, and what it is to be
     */
    public function edit(): array
    {
        $all = (array) $this->validated();
        $is = self::fieldsIn($all);
        $saw = self::fieldsIn([...(array) $all['was'], 'custom' => $all['was_custom'] ?? []]);
        $was = [];
        foreach (array_keys($is) as $name) {
            if (!\array_key_exists($name, $saw)) {
                $path = str_starts_with($name, DefectField::CUSTOM) ? 'was_' . $name : "was.{$name}";
                throw ValidationException::withMessages([$path => 'Say what it was when you began.']);
            }
            $was[$name] = $saw[$name];
        }

        return [$was, $is];
    }
}
