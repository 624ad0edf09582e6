<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Requests;

use LucidStep\App\Areas\Walk\Commands\AddEvidenceCommand;
use OpenApi\Attributes as OA;

/**
 * A file for a step or an attempt.
 */
#[
    OA\Schema(
        required: ['id'],
        properties: [
            new OA\Property(property: 'id', type: 'string', format: 'uuid'),
            new OA\Property(property: 'file', type: 'string', format: 'binary', nullable: true),
            new OA\Property(property: 'link', type: 'string', nullable: true),
            new OA\Property(property: 'name', type: 'string', nullable: true),
            new OA\Property(property: 'caption', type: 'string', nullable: true),
            new OA\Property(property: 'round', type: 'integer', nullable: true),
            new OA\Property(property: 'step', type: 'integer', nullable: true),
            new OA\Property(
                property: 'source',
                type: 'string',
                nullable: true,
                enum: ['paste', 'drop', 'file', 'capture', 'camera', 'recording', 'log', 'link', 'filmstrip', 'handset'],
            ),
            new OA\Property(property: 'device_time', type: 'string', nullable: true),
            new OA\Property(property: 'sent_at', type: 'string', nullable: true),
            new OA\Property(property: 'counter', type: 'integer', nullable: true),
        ],
    ),
]
final class EvidenceRequest extends CommandRequest
{
    public function rules(): array
    {
        return [
            'id' => ['required', 'uuid'],
            'file' => ['required_without:link', 'file'],
            'link' => ['nullable', 'string', 'url:http,https', 'max:2000'],
            'name' => ['nullable', 'string', 'max:200'],
            'caption' => ['nullable', 'string', 'max:500'],
            'round' => ['nullable', 'integer', 'min:1', 'max:100000'],
            'step' => ['nullable', 'integer', 'min:1', 'max:100000'],
            'source' => ['nullable', 'in:paste,drop,file,capture,camera,recording,log,link,filmstrip,handset'],
            ...self::STAMP,
        ];
    }

    public function command(): AddEvidenceCommand
    {
        return AddEvidenceCommand::fromPayload($this->payload());
    }
}
