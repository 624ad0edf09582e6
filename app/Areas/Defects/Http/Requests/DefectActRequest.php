<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Http\Requests;

use Illuminate\Support\Arr;
use Illuminate\Validation\Rules\Enum;
use LucidStep\App\Areas\Defects\Data\DefectMove;
use LucidStep\App\Areas\Defects\Data\ManyChanges;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\Project;
use LucidStep\App\Support\Http\ApiRequest;
use LucidStep\Core\Defects\DefectField;
use LucidStep\Core\Defects\DefectState;
use LucidStep\Core\Text\ItemList;
use OpenApi\Attributes as OA;

/**
 * An act on many defects: which, and what is to be otherwise with each. What is left out stays.
 */
#[
    OA\Schema(
        required: ['filter', 'changes'],
        properties: [
            new OA\Property(
                property: 'filter',
                type: 'object',
                description: 'As in the address of the list; `ids` for some',
                additionalProperties: new OA\AdditionalProperties(type: 'string'),
            ),
            new OA\Property(
                property: 'changes',
                type: 'object',
                properties: [
                    new OA\Property(property: 'severity', type: 'string', enum: ['critical', 'major', 'minor', 'trivial']),
                    new OA\Property(property: 'priority', type: 'string', nullable: true, description: '`now`, `soon` or `later`'),
                    new OA\Property(property: 'assignee_id', type: 'string', nullable: true, format: 'uuid'),
                    new OA\Property(
                        property: 'build_id',
                        type: 'string',
                        nullable: true,
                        format: 'uuid',
                        description: 'On which it was met',
                    ),
                    new OA\Property(property: 'configuration_id', type: 'string', nullable: true, format: 'uuid'),
                    new OA\Property(property: 'component', type: 'string', nullable: true),
                    new OA\Property(property: 'labels_add', type: 'string', nullable: true, description: 'Between commas'),
                    new OA\Property(property: 'labels_remove', type: 'string', nullable: true, description: 'Between commas'),
                    new OA\Property(
                        property: 'custom',
                        type: 'object',
                        additionalProperties: new OA\AdditionalProperties(type: 'string', nullable: true),
                    ),
                    new OA\Property(property: 'state', type: 'string', enum: DefectState::class),
                    new OA\Property(property: 'note', type: 'string', nullable: true),
                    new OA\Property(
                        property: 'fixed_build_id',
                        type: 'string',
                        nullable: true,
                        format: 'uuid',
                        description: 'For fixed: the build with the fix',
                    ),
                    new OA\Property(property: 'duplicate_of', type: 'string', nullable: true, description: 'The key of the other defect'),
                ],
            ),
        ],
    ),
]
final class DefectActRequest extends ApiRequest
{
    use DefectFieldRules;

    private const FIELDS = ['severity', 'priority', 'assignee_id', 'build_id', 'configuration_id', 'component', 'custom', 'custom.*'];

    public function rules(): array
    {
        $rules = [];
        foreach (Arr::only(self::fieldRules(), self::FIELDS) as $name => $of) {
            $rules["changes.{$name}"] = $of;
        }

        return [
            'filter' => ['present', 'array', 'max:40'],
            'filter.*' => ['nullable', 'string', 'max:40000'],
            'changes' => ['required', 'array'],
            ...$rules,
            'changes.labels_add' => ['nullable', 'string', 'max:4000'],
            'changes.labels_remove' => ['nullable', 'string', 'max:4000'],
            'changes.state' => [new Enum(DefectState::class)],
            'changes.note' => self::WORDS,
            'changes.fixed_build_id' => ['nullable', 'uuid'],
            'changes.duplicate_of' => ['nullable', 'string', 'max:24'],
        ];
    }

    public function messages(): array
    {
        return ['changes.required' => 'Say what is to be otherwise.'];
    }

    public function changes(Project $project): ManyChanges
    {
        $all = (array) $this->validated('changes');
        $text = static fn(string $name): string => trim((string) ($all[$name] ?? ''));
        $fields = array_diff_key(self::fieldsIn($all), [DefectField::Labels->value => true]);
        $of = mb_strtoupper($text('duplicate_of'));
        $move =
            '' === $text('state')
                ? null
                : new DefectMove(
                    DefectState::from($text('state')),
                    $text('note'),
                    '' === $text('fixed_build_id') ? null : $text('fixed_build_id'),
                    '' === $of ? null : Defect::query()->where('project_id', $project->id)->where('key', $of)->first(),
                );

        return new ManyChanges($fields, ItemList::read($text('labels_add')), ItemList::read($text('labels_remove')), $move);
    }
}
