<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Requests;

use LucidStep\App\Areas\Walk\Commands\NoteCommand;
use OpenApi\Attributes as OA;

/**
 * A step's note, or the attempt's.
 */
#[
    OA\Schema(
        properties: [
            new OA\Property(property: 'round', type: 'integer', nullable: true),
            new OA\Property(property: 'step', type: 'integer', nullable: true),
            new OA\Property(property: 'note', type: 'string', nullable: true),
            new OA\Property(property: 'device_time', type: 'string', nullable: true),
            new OA\Property(property: 'sent_at', type: 'string', nullable: true),
            new OA\Property(property: 'counter', type: 'integer', nullable: true),
        ],
    ),
]
final class NoteRequest extends CommandRequest
{
    public function rules(): array
    {
        return [
            'round' => ['nullable', 'required_with:step', 'integer', 'min:1', 'max:100000'],
            'step' => ['nullable', 'integer', 'min:1', 'max:100000'],
            'note' => ['present', ...self::WORDS],
            ...self::STAMP,
        ];
    }

    public function command(): NoteCommand
    {
        return NoteCommand::fromPayload($this->payload());
    }
}
