<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Http\Requests;

use LucidStep\App\Areas\Walk\Commands\FinishCommand;
use LucidStep\App\Support\Http\DurationRule;
use LucidStep\Core\Forecast\Duration;
use OpenApi\Attributes as OA;

/**
 * Ends an attempt. Without a verdict the roll-up of the steps stands.
 */
#[
    OA\Schema(
        properties: [
            new OA\Property(property: 'verdict', type: 'string', nullable: true, enum: ['pass', 'fail', 'blocked', 'not_applicable']),
            new OA\Property(property: 'note', type: 'string', nullable: true),
            new OA\Property(property: 'active_ms', type: 'integer', nullable: true),
            new OA\Property(property: 'time', type: 'string', nullable: true),
            new OA\Property(property: 'device_time', type: 'string', nullable: true),
            new OA\Property(property: 'sent_at', type: 'string', nullable: true),
            new OA\Property(property: 'counter', type: 'integer', nullable: true),
        ],
    ),
]
final class FinishRequest extends CommandRequest
{
    public function rules(): array
    {
        return [
            'verdict' => ['nullable', 'in:pass,fail,blocked,not_applicable'],
            'note' => self::WORDS,
            'active_ms' => ['nullable', 'integer', 'min:0', 'max:86400000'],
            'time' => ['nullable', 'string', 'max:40', new DurationRule()],
            ...self::STAMP,
        ];
    }

    public function command(): FinishCommand
    {
        $time = $this->filled('time') ? Duration::fromText($this->string('time')->toString())->milliseconds : null;

        return FinishCommand::fromPayload($this->payload(['corrected_ms' => $time]));
    }
}
