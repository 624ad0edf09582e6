<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Requests;

use LucidStep\App\Areas\Walk\Commands\VerdictCommand;
use OpenApi\Attributes as OA;

/**
 * A verdict for a step; not run takes it back.
 */
#[
    OA\Schema(
        required: ['round', 'step', 'verdict'],
        properties: [
            new OA\Property(property: 'round', type: 'integer'),
            new OA\Property(property: 'step', type: 'integer'),
            new OA\Property(property: 'verdict', type: 'string', enum: ['pass', 'fail', 'blocked', 'not_applicable', 'not_run']),
            new OA\Property(property: 'happened', type: 'string', nullable: true),
            new OA\Property(property: 'reason', type: 'string', nullable: true),
            new OA\Property(property: 'waits_on', type: 'string', nullable: true),
            new OA\Property(property: 'active_ms', type: 'integer', nullable: true),
            new OA\Property(property: 'device_time', type: 'string', nullable: true),
            new OA\Property(property: 'sent_at', type: 'string', nullable: true),
            new OA\Property(property: 'counter', type: 'integer', nullable: true),
        ],
    ),
]
final class VerdictRequest extends CommandRequest
{
    public function rules(): array
    {
        return [
            'round' => ['required', 'integer', 'min:1', 'max:100000'],
            'step' => ['required', 'integer', 'min:1', 'max:100000'],
            'verdict' => ['required', 'in:pass,fail,blocked,not_applicable,not_run'],
            'happened' => ['required_if:verdict,fail', ...self::WORDS],
            'reason' => ['required_if:verdict,blocked', ...self::WORDS],
            'waits_on' => self::WORDS,
            'active_ms' => ['nullable', 'integer', 'min:0', 'max:86400000'],
            ...self::STAMP,
        ];
    }

    public function messages(): array
    {
        return ['happened.required_if' => 'Say what happened instead.', 'reason.required_if' => 'Say why it is blocked.'];
    }

    public function command(): VerdictCommand
    {
        return VerdictCommand::fromPayload($this->payload());
    }
}
