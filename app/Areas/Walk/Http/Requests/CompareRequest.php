<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Requests;

use LucidStep\App\Areas\Walk\Commands\CompareCommand;
use LucidStep\App\Models\Evidence;
use OpenApi\Attributes as OA;

/**
 * The reference picture, by its SHA-256.
 */
#[
    OA\Schema(
        required: ['reference'],
        properties: [
            new OA\Property(property: 'reference', type: 'string'),
            new OA\Property(property: 'device_time', type: 'string'),
            new OA\Property(property: 'sent_at', type: 'string'),
            new OA\Property(property: 'counter', type: 'integer'),
        ],
    ),
]
final class CompareRequest extends CommandRequest
{
    public function rules(): array
    {
        return [
            'reference' => ['required', 'string', 'size:64'],
            ...self::STAMP,
        ];
    }

    public function command(Evidence $evidence): CompareCommand
    {
        return CompareCommand::fromPayload($this->payload(['evidence' => $evidence->id]));
    }
}
