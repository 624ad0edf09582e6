<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Commands;

use LucidStep\Core\Data\Mask;
use LucidStep\Core\Verdict\Verdict;

/**
 * Ends an attempt. Without a verdict the roll-up of its steps stands.
 */
final readonly class FinishCommand implements AttemptCommand, LocksCycle
{
    public function __construct(
        public ?Verdict $verdict = null,
        public string $note = '',
        public int $activeMs = 0,
        public ?int $correctedMs = null,
    ) {}

    public static function fromPayload(Payload $payload): self
    {
        return new self(
            Verdict::tryFrom($payload->text('verdict')),
            $payload->text('note'),
            $payload->int('active_ms'),
            $payload->intOrNull('corrected_ms'),
        );
    }

    public function kind(): string
    {
        return 'finished';
    }

    public function payload(): array
    {
        return [
            'verdict' => $this->verdict?->value,
            'note' => $this->note,
            'active_ms' => $this->activeMs,
            'corrected_ms' => $this->correctedMs,
        ];
    }

    public function masked(Mask $mask): self
    {
        return new self($this->verdict, $mask->text($this->note), $this->activeMs, $this->correctedMs);
    }

    public function description(): string
    {
        return CommandWords::at(
            null,
            null,
            'finished' .
                (null === $this->verdict ? ' as its steps say' : ' as ' . CommandWords::verdict($this->verdict)) .
                CommandWords::quoted($this->note),
        );
    }
}
