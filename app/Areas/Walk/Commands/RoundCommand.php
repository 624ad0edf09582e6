<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Commands;

use LucidStep\Core\Data\Mask;

/**
 * Leaves a round out, takes it up again, or walks its row once more.
 */
final readonly class RoundCommand implements AttemptCommand
{
    public function __construct(public int $round, public RoundChange $change, public string $reason = '') {}

    public static function fromPayload(Payload $payload): self
    {
        return new self($payload->int('round'), RoundChange::from($payload->text('act')), $payload->text('reason'));
    }

    public function kind(): string
    {
        return "round_{$this->change->value}";
    }

    public function payload(): array
    {
        return ['round' => $this->round, 'act' => $this->change->value, 'reason' => $this->reason];
    }

    public function masked(Mask $mask): self
    {
        return new self($this->round, $this->change, $mask->text($this->reason));
    }

    public function description(): string
    {
        return CommandWords::at(
            $this->round,
            null,
            match ($this->change) {
                RoundChange::Skip => 'left out' . CommandWords::quoted($this->reason),
                RoundChange::TakeUp => 'taken up again',
                RoundChange::Repeat => 'walked once more',
            },
        );
    }
}
