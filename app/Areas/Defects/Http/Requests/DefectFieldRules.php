<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Http\Requests;

use LucidStep\Core\Defects\DefectField;

/**
 * What may come in of each field of a defect, filed, changed by itself or in many at once.
 */
trait DefectFieldRules
{
    /**
     * @return array<string, list<string>>
     */
    private static function fieldRules(): array
    {
        $words = ['nullable', 'string', 'max:10000'];
        $long = ['nullable', 'string', 'max:100000'];

        return [
            'preconditions' => $words,
            'steps' => $long,
            'expected' => $words,
            'actual' => $words,
            'environment' => ['nullable', 'string', 'max:2000'],
            'body' => $long,
            'severity' => ['in:critical,major,minor,trivial'],
            'priority' => ['nullable', 'in:now,soon,later'],
            'assignee_id' => ['nullable', 'uuid'],
            'build_id' => ['nullable', 'uuid'],
            'configuration_id' => ['nullable', 'uuid'],
            'component' => ['nullable', 'string', 'max:60'],
            'labels' => ['nullable', 'string', 'max:4000'],
            'custom' => ['array', 'max:40'],
            'custom.*' => ['nullable', 'string', 'max:2000'],
        ];
    }

    /**
     * @param  array<array-key, mixed>  $input
     *
     * @return array<string, ?string> by field, those of the project by `custom.` and their id
     */
    private static function fieldsIn(array $input): array
    {
        $fields = [];
        foreach (DefectField::cases() as $field) {
            if (\array_key_exists($field->value, $input)) {
                $value = $input[$field->value];
                $fields[$field->value] = \is_string($value) ? trim($value) : $field->emptyValue();
            }
        }
        foreach ((array) ($input['custom'] ?? []) as $id => $value) {
            $fields[DefectField::CUSTOM . $id] = \is_string($value) ? trim($value) : '';
        }

        return $fields;
    }
}
