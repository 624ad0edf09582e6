<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use LucidStep\Core\Exchange\FieldReader;
use OpenApi\Attributes as OA;

/**
 * What the columns of a file are.
 */
#[
    OA\Schema(
        required: ['mapping', 'layout'],
        properties: [
            new OA\Property(property: 'mapping', type: 'array', items: new OA\Items(type: 'string', nullable: true)),
            new OA\Property(property: 'layout', type: 'string', enum: ['step', 'case']),
            new OA\Property(
                property: 'words',
                description: 'What words of the file mean; remembered for the project.',
                type: 'array',
                items: new OA\Items(
                    required: ['field', 'word'],
                    properties: [
                        new OA\Property(property: 'field', type: 'string', enum: FieldReader::WORDS),
                        new OA\Property(property: 'word', type: 'string'),
                        new OA\Property(property: 'value', description: 'Null: nobody says any more.', type: 'string', nullable: true),
                    ],
                    type: 'object',
                ),
            ),
        ],
    ),
]
final class MappingRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'mapping' => ['required', 'array', 'max:120'],
            'mapping.*' => ['nullable', 'string', 'max:80'],
            'layout' => ['required', 'in:step,case'],
            'words' => ['nullable', 'array', 'max:300'],
            'words.*.field' => ['required', 'in:' . implode(',', FieldReader::WORDS)],
            'words.*.word' => ['required', 'string', 'max:200'],
            'words.*.value' => ['nullable', 'string', 'max:200'],
        ];
    }

    /**
     * @return list<array{field: string, word: string, value: ?string}>
     */
    public function words(): array
    {
        return array_values(
            array_map(
                static fn(array $w): array => ['field' => $w['field'], 'word' => $w['word'], 'value' => $w['value'] ?? null],
                (array) $this->validated('words'),
            ),
        );
    }
}
