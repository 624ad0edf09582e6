<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Commands;

use LucidStep\Core\Data\Mask;

/**
 * Moves a piece of evidence to another step, or to the attempt.
 */
final readonly class MoveEvidenceCommand implements EvidenceCommand
{
    public function __construct(public string $evidenceId, public ?int $round, public ?int $step) {}

    public static function fromPayload(Payload $payload): self
    {
        return new self($payload->text('evidence'), $payload->intOrNull('round'), $payload->intOrNull('step'));
    }

    public function evidenceId(): string
    {
        return $this->evidenceId;
    }

    public function kind(): string
    {
        return 'evidence_moved';
    }

    public function payload(): array
    {
        return ['evidence' => $this->evidenceId, 'round' => $this->round, 'step' => $this->step];
    }

    public function masked(Mask $mask): self
    {
        return $this;
    }

    public function description(): string
    {
        return CommandWords::at($this->round, $this->step, 'evidence moved here');
    }
}
