<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * What is picked for a cycle: cases by id, folder, suite, filter or an earlier cycle, × configurations × data rows.
 */
#[
    OA\Schema(
        required: ['picks'],
        properties: [
            new OA\Property(property: 'picks', ref: EntryPicks::class),
            new OA\Property(property: 'cycle', type: 'string', nullable: true),
            new OA\Property(property: 'starts_on', type: 'string', format: 'date', nullable: true),
            new OA\Property(property: 'ends_on', type: 'string', format: 'date', nullable: true),
            new OA\Property(property: 'testers', type: 'array', items: new OA\Items(type: 'string', format: 'uuid')),
        ],
    ),
]
final class EntrySelectionRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            ...EntryPicks::rules(true),
            'cycle' => ['nullable', 'string', 'max:40'],
            'starts_on' => ['nullable', 'date_format:Y-m-d'],
            'ends_on' => ['nullable', 'date_format:Y-m-d'],
            'testers' => ['nullable', 'array', 'max:500'],
            'testers.*' => ['uuid'],
        ];
    }
}
