<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Http\Requests;

use LucidStep\App\Areas\Casebook\Http\Requests\CaseFilterFields;
use LucidStep\App\Support\Http\UuidList;
use OpenApi\Attributes as OA;

/**
 * What is picked for a cycle, as a request brings it: cases that fit any of it, × configurations × data rows.
 */
#[
    OA\Schema(
        required: [],
        type: 'object',
        properties: [
            new OA\Property(property: 'cases', type: 'array', items: new OA\Items(type: 'string', format: 'uuid')),
            new OA\Property(property: 'folders', type: 'array', items: new OA\Items(type: 'string', format: 'uuid')),
            new OA\Property(property: 'suites', type: 'array', items: new OA\Items(type: 'string', format: 'uuid')),
            new OA\Property(property: 'filter', ref: CaseFilterFields::class),
            new OA\Property(
                property: 'earlier',
                description: 'What came out so in an earlier cycle; without states: fail, blocked and retest',
                required: ['cycle'],
                properties: [
                    new OA\Property(property: 'cycle', type: 'string', description: 'Its key or id'),
                    new OA\Property(property: 'display_state', type: 'array', items: new OA\Items(type: 'string', enum: self::STATES)),
                ],
                type: 'object',
            ),
            new OA\Property(property: 'configurations', type: 'array', items: new OA\Items(type: 'string', format: 'uuid')),
            new OA\Property(
                property: 'rows',
                description: 'Ids of data rows by id of the case; not named: all of them',
                type: 'object',
                additionalProperties: new OA\AdditionalProperties(type: 'array', items: new OA\Items(type: 'string', format: 'uuid')),
            ),
            new OA\Property(property: 'usual', type: 'boolean', description: 'Whether cases bring what they usually wait for'),
        ],
    ),
]
final class EntryPicks
{
    private const STATES = ['pass', 'fail', 'blocked', 'not_applicable', 'not_run', 'in_progress', 'retest'];

    /**
     * @return array<string, mixed> the rules of a request
     */
    public static function rules(bool $required): array
    {
        return [
            'picks' => [$required ? 'required' : 'nullable', 'array'],
            'picks.folders' => ['nullable', 'array', 'max:500'],
            'picks.folders.*' => ['uuid'],
            'picks.suites' => ['nullable', 'array', 'max:200'],
            'picks.suites.*' => ['uuid'],
            ...CaseFilterFields::rules('picks.filter', 'nullable', 400_000),
            'picks.earlier' => ['nullable', 'array'],
            'picks.earlier.cycle' => ['nullable', 'string', 'max:40'],
            'picks.earlier.display_state' => ['nullable', 'array'],
            'picks.earlier.display_state.*' => ['in:' . implode(',', self::STATES)],
            'picks.configurations' => ['nullable', 'array', 'max:300'],
            'picks.configurations.*' => ['uuid'],
            'picks.rows' => ['nullable', 'array'],
            'picks.rows.*' => ['array'],
            'picks.rows.*.*' => ['uuid'],
            'picks.usual' => ['nullable', 'boolean'],
            'picks.cases' => ['nullable', 'array', 'max:20000', new UuidList()],
        ];
    }
}
