<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Commands;

use LucidStep\Core\Data\Mask;

/**
 * Takes a piece of evidence off; the record keeps it.
 */
final readonly class RemoveEvidenceCommand implements EvidenceCommand
{
    public function __construct(public string $evidenceId) {}

    public static function fromPayload(Payload $payload): self
    {
        return new self($payload->text('evidence'));
    }

    public function evidenceId(): string
    {
        return $this->evidenceId;
    }

    public function kind(): string
    {
        return 'evidence_removed';
    }

    public function payload(): array
    {
        return ['evidence' => $this->evidenceId];
    }

    public function masked(Mask $mask): self
    {
        return $this;
    }

    public function description(): string
    {
        return CommandWords::at(null, null, 'evidence taken off');
    }
}
