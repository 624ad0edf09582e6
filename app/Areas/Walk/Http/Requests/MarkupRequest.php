<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Requests;

use LucidStep\App\Support\Http\ApiRequest;
use OpenApi\Attributes as OA;

/**
 * What was drawn on a picture, as JSON, and the picture with it on.
 */
#[
    OA\Schema(
        required: ['markup'],
        properties: [
            new OA\Property(property: 'markup', type: 'string'),
            new OA\Property(property: 'file', type: 'string', format: 'binary', nullable: true),
            new OA\Property(property: 'device_time', type: 'string', nullable: true),
            new OA\Property(property: 'sent_at', type: 'string', nullable: true),
            new OA\Property(property: 'counter', type: 'integer', nullable: true),
        ],
    ),
]
final class MarkupRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'markup' => ['required', 'string', 'json', 'max:200000'],
            'file' => ['nullable', 'file'],
            ...self::STAMP,
        ];
    }

    /**
     * The shapes; none takes them off.
     *
     * @return array<string, mixed>
     */
    public function shapes(): array
    {
        $all = json_decode($this->string('markup')->toString(), true);

        return \is_array($all) && \is_array($all['shapes'] ?? null)
            ? [
                'shapes' => \array_slice(array_values($all['shapes']), 0, 500),
                'width' => (int) ($all['width'] ?? 0),
                'height' => (int) ($all['height'] ?? 0),
                ...isset($all['crop']) && \is_array($all['crop']) ? ['crop' => $all['crop']] : [],
            ]
            : ['shapes' => []];
    }
}
