<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * A data table as it was typed, or a text with its rows.
 */
#[
    OA\Schema(
        required: ['name'],
        properties: [
            new OA\Property(property: 'name', type: 'string'),
            new OA\Property(property: 'columns', type: 'array', items: new OA\Items(ref: '#/components/schemas/ColumnLine')),
            new OA\Property(
                property: 'rows',
                type: 'array',
                items: new OA\Items(
                    type: 'object',
                    properties: [
                        new OA\Property(property: 'id', type: 'string', nullable: true),
                        new OA\Property(property: 'cells', type: 'array', items: new OA\Items(type: 'string', nullable: true)),
                    ],
                ),
            ),
            new OA\Property(
                property: 'text',
                type: 'string',
                description: 'Instead of columns and rows: pasted from a spreadsheet, or CSV',
            ),
            new OA\Property(property: 'revision', type: 'integer'),
        ],
    ),
]
final class TableRequest extends ApiRequest
{
    protected const BRINGS_SECRETS = true;

    public function rules(): array
    {
        return [
            'name' => ['required', 'string', 'max:120'],
            'columns' => ['required_without:text', 'array', 'max:200'],
            'columns.*.name' => ['nullable', 'string', 'max:200'],
            'columns.*.secret' => ['nullable', 'boolean'],
            'rows' => ['nullable', 'array', 'max:6000'],
            'rows.*.id' => ['nullable', 'uuid'],
            'rows.*.cells' => ['nullable', 'array', 'max:200'],
            'text' => ['nullable', 'string', 'max:5000000'],
            'revision' => ['nullable', 'integer', 'min:1'],
        ];
    }
}
