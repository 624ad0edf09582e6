<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Requests;

use OpenApi\Attributes as OA;

/**
 * A step's note.
 */
#[OA\Schema(required: ['round', 'step'], properties: [
    new OA\Property(property: 'round', type: 'integer'),
    new OA\Property(property: 'step', type: 'integer'),
    new OA\Property(property: 'note', type: 'string', nullable: true),
    new OA\Property(property: 'device_time', type: 'string', nullable: true),
    new OA\Property(property: 'sent_at', type: 'string', nullable: true),
    new OA\Property(property: 'counter', type: 'integer', nullable: true),
])]
final class NoteRequest extends ApiRequest
{
    public function rules(): array
    {
        return [
            'round' => ['required', 'integer', 'min:1', 'max:100000'],
            'step' => ['required', 'integer', 'min:1', 'max:100000'],
            'note' => ['present', ...self::WORDS],
            ...self::STAMP,
        ];
    }
}
