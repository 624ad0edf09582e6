<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Commands;

use LucidStep\Core\Data\Mask;

/**
 * Counts a try of a step that comes and goes.
 */
final readonly class RetryCommand implements AttemptCommand
{
    public function __construct(public int $round, public int $step, public bool $failed) {}

    public static function fromPayload(Payload $payload): self
    {
        return new self($payload->int('round'), $payload->int('step'), $payload->bool('failed'));
    }

    public function kind(): string
    {
        return 'tried';
    }

    public function payload(): array
    {
        return ['round' => $this->round, 'step' => $this->step, 'failed' => $this->failed];
    }

    public function masked(Mask $mask): self
    {
        return $this;
    }

    public function description(): string
    {
        return CommandWords::at($this->round, $this->step, 'a try that ' . ($this->failed ? 'failed' : 'went well'));
    }
}
