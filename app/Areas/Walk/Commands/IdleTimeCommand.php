<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Commands;

use LucidStep\Core\Data\Mask;
use LucidStep\Core\Forecast\Duration;

/**
 * Says how much of a time without a sign of the tester was work.
 */
final readonly class IdleTimeCommand implements AttemptCommand
{
    public function __construct(public int $awayMs, public int $countedMs) {}

    public static function fromPayload(Payload $payload): self
    {
        return new self($payload->int('away_ms'), $payload->int('counted_ms'));
    }

    public function kind(): string
    {
        return 'away_decided';
    }

    public function payload(): array
    {
        return ['away_ms' => $this->awayMs, 'counted_ms' => $this->countedMs];
    }

    public function masked(Mask $mask): self
    {
        return $this;
    }

    public function description(): string
    {
        return CommandWords::at(
            null,
            null,
            Duration::rounded($this->countedMs) . ' of ' . Duration::rounded($this->awayMs) . ' away count as work',
        );
    }
}
