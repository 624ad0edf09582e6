<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Requests;

use LucidStep\App\Areas\Walk\Actions\RecordFromList;
use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * Verdicts given from a cycle's list; one note is enough for all.
 */
#[
    OA\Schema(
        required: ['ids', 'verdict', 'note'],
        properties: [
            new OA\Property(property: 'ids', type: 'array', items: new OA\Items(type: 'string', format: 'uuid')),
            new OA\Property(property: 'verdict', type: 'string', enum: ['pass', 'fail', 'blocked', 'not_applicable']),
            new OA\Property(property: 'note', type: 'string'),
            new OA\Property(property: 'reason', type: 'string'),
            new OA\Property(property: 'waits_on', type: 'string'),
            new OA\Property(property: 'stops', description: 'Fail or blocked: stop what needs their pass.', type: 'boolean'),
            new OA\Property(property: 'device_time', type: 'string'),
            new OA\Property(property: 'sent_at', type: 'string'),
            new OA\Property(property: 'counter', type: 'integer'),
        ],
    ),
]
final class ListVerdictRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'ids' => ['required', 'array', 'max:' . RecordFromList::MOST],
            'ids.*' => ['uuid'],
            'verdict' => ['required', 'in:pass,fail,blocked,not_applicable'],
            'note' => ['required', 'string', 'max:10000'],
            'reason' => ['nullable', 'string', 'max:2000'],
            'waits_on' => ['nullable', 'string', 'max:2000'],
            'stops' => ['nullable', 'boolean'],
            ...self::STAMP,
        ];
    }
}
