<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * What changes of a cycle, and which revision of it the person saw.
 */
#[
    OA\Schema(
        properties: [
            new OA\Property(property: 'revision', type: 'integer'),
            new OA\Property(property: 'name', type: 'string'),
            new OA\Property(property: 'starts_on', type: 'string', format: 'date'),
            new OA\Property(property: 'ends_on', type: 'string', format: 'date'),
            new OA\Property(property: 'description', type: 'string'),
            new OA\Property(property: 'build_id', type: 'string', format: 'uuid', nullable: true),
            new OA\Property(property: 'environment_id', type: 'string', format: 'uuid', nullable: true),
            new OA\Property(property: 'milestone_id', type: 'string', format: 'uuid', nullable: true),
            new OA\Property(property: 'phase', type: 'string'),
            new OA\Property(property: 'folder', type: 'string'),
            new OA\Property(property: 'priority', type: 'string'),
            new OA\Property(property: 'conditions_hold', type: 'boolean'),
            new OA\Property(property: 'default_assignee_id', type: 'string', format: 'uuid', nullable: true),
            new OA\Property(property: 'testers', type: 'array', items: new OA\Items(type: 'string', format: 'uuid')),
            new OA\Property(property: 'watchers', type: 'array', items: new OA\Items(type: 'string', format: 'uuid')),
        ],
    ),
]
final class CycleChangeRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'revision' => ['required', 'integer'],
            'name' => ['sometimes', 'required', 'string', 'max:200'],
            'starts_on' => ['sometimes', 'required', 'date_format:Y-m-d'],
            'ends_on' => ['sometimes', 'required', 'date_format:Y-m-d'],
            ...self::CYCLE,
        ];
    }
}
