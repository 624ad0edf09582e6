<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Requests;

use OpenApi\Attributes as OA;

/**
 * A new cycle, with what is picked for it.
 */
#[OA\Schema(required: ['name', 'starts_on', 'ends_on'], properties: [
    new OA\Property(property: 'name', type: 'string'),
    new OA\Property(property: 'starts_on', type: 'string', format: 'date'),
    new OA\Property(property: 'ends_on', type: 'string', format: 'date'),
    new OA\Property(property: 'description', type: 'string'),
    new OA\Property(property: 'build_id', type: 'string', format: 'uuid', nullable: true),
    new OA\Property(property: 'milestone_id', type: 'string', format: 'uuid', nullable: true),
    new OA\Property(property: 'phase', type: 'string'),
    new OA\Property(property: 'folder', type: 'string'),
    new OA\Property(property: 'priority', type: 'string'),
    new OA\Property(property: 'conditions_hold', type: 'boolean'),
    new OA\Property(property: 'default_assignee_id', type: 'string', format: 'uuid', nullable: true),
    new OA\Property(property: 'testers', type: 'array', items: new OA\Items(type: 'string', format: 'uuid')),
    new OA\Property(property: 'watchers', type: 'array', items: new OA\Items(type: 'string', format: 'uuid')),
    new OA\Property(property: 'picks', type: 'object', additionalProperties: true),
])]
final class CycleRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'name' => ['required', 'string', 'max:200'],
            'starts_on' => ['required', 'date_format:Y-m-d'],
            'ends_on' => ['required', 'date_format:Y-m-d'],
            'description' => ['nullable', 'string', 'max:20000'],
            'build_id' => ['nullable', 'uuid'],
            'milestone_id' => ['nullable', 'uuid'],
            'phase' => ['nullable', 'string', 'max:60'],
            'folder' => ['nullable', 'string', 'max:200'],
            'priority' => ['nullable', 'string', 'max:60'],
            'conditions_hold' => ['boolean'],
            'default_assignee_id' => ['nullable', 'uuid'],
            'testers' => ['nullable', 'array', 'max:500'],
            'testers.*' => ['uuid'],
            'watchers' => ['nullable', 'array', 'max:500'],
            'watchers.*' => ['uuid'],
            'picks' => ['nullable', 'array'],
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
