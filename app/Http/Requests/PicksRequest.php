<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Requests;

use OpenApi\Attributes as OA;

/**
 * What is picked for a cycle: cases by id, folder, suite, filter or an earlier cycle, × configurations × data rows.
 */
#[OA\Schema(required: ['picks'], properties: [
    new OA\Property(property: 'picks', type: 'object', additionalProperties: true),
    new OA\Property(property: 'cycle', type: 'string'),
])]
final class PicksRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'picks' => ['required', 'array'],
            'cycle' => ['nullable', 'string', 'max:40'],
            'picks.cases' => ['nullable', 'array', 'max:20000', new UuidList()],
            'picks.folders' => ['nullable', 'array', 'max:500'],
            'picks.folders.*' => ['uuid'],
            'picks.suites' => ['nullable', 'array', 'max:200'],
            'picks.suites.*' => ['uuid'],
            'picks.filter' => ['nullable', 'array'],
            'picks.filter.*' => ['nullable', 'string', 'max:400000'],
            'picks.earlier' => ['nullable', 'array'],
            'picks.earlier.cycle' => ['nullable', 'string', 'max:40'],
            'picks.earlier.shows' => ['nullable', 'array'],
            'picks.earlier.shows.*' => ['in:pass,fail,blocked,not_applicable,not_run,in_progress,retest'],
            'picks.configurations' => ['nullable', 'array', 'max:300'],
            'picks.configurations.*' => ['uuid'],
            'picks.rows' => ['nullable', 'array'],
            'picks.rows.*' => ['array'],
            'picks.rows.*.*' => ['uuid'],
            'picks.usual' => ['nullable', 'boolean'],
        ];
    }
}
