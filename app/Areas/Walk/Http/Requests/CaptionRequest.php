<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Requests;

use LucidStep\App\Areas\Walk\Commands\CaptionCommand;
use LucidStep\App\Models\Evidence;
use OpenApi\Attributes as OA;

/**
 * A caption; an empty one removes it.
 */
#[
    OA\Schema(
        properties: [
            new OA\Property(property: 'caption', type: 'string', nullable: true),
            new OA\Property(property: 'device_time', type: 'string', nullable: true),
            new OA\Property(property: 'sent_at', type: 'string', nullable: true),
            new OA\Property(property: 'counter', type: 'integer', nullable: true),
        ],
    ),
]
final class CaptionRequest extends CommandRequest
{
    public function rules(): array
    {
        return [
            'caption' => ['present', 'nullable', 'string', 'max:500'],
            ...self::STAMP,
        ];
    }

    public function command(Evidence $evidence): CaptionCommand
    {
        return CaptionCommand::fromPayload($this->payload(['evidence' => $evidence->id, 'to' => $this->input('caption')]));
    }
}
