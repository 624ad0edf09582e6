<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Requests;

use LucidStep\App\Areas\Walk\Commands\MoveEvidenceCommand;
use LucidStep\App\Models\Evidence;
use OpenApi\Attributes as OA;

/**
 * Another step for a piece of evidence; none: the attempt.
 */
#[
    OA\Schema(
        properties: [
            new OA\Property(property: 'round', type: 'integer'),
            new OA\Property(property: 'step', type: 'integer'),
            new OA\Property(property: 'device_time', type: 'string'),
            new OA\Property(property: 'sent_at', type: 'string'),
            new OA\Property(property: 'counter', type: 'integer'),
        ],
    ),
]
final class MoveEvidenceRequest extends CommandRequest
{
    public function rules(): array
    {
        return [
            'round' => ['nullable', 'integer', 'min:1', 'max:100000'],
            'step' => ['nullable', 'integer', 'min:1', 'max:100000'],
            ...self::STAMP,
        ];
    }

    public function command(Evidence $evidence): MoveEvidenceCommand
    {
        return MoveEvidenceCommand::fromPayload($this->payload(['evidence' => $evidence->id]));
    }
}
