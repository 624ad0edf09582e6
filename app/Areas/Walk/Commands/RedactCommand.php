<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Commands;

use LucidStep\Core\Data\Mask;

/**
 * Puts a picture in the place of one that showed too much.
 */
final readonly class RedactCommand implements EvidenceCommand, LocksCycle
{
    public function __construct(public string $evidenceId, public string $sha256) {}

    public static function fromPayload(Payload $payload): self
    {
        return new self($payload->text('evidence'), $payload->text('sha256'));
    }

    public function evidenceId(): string
    {
        return $this->evidenceId;
    }

    public function kind(): string
    {
        return 'evidence_redacted';
    }

    public function payload(): array
    {
        return ['evidence' => $this->evidenceId, 'sha256' => $this->sha256];
    }

    public function masked(Mask $mask): self
    {
        return $this;
    }

    public function description(): string
    {
        return CommandWords::at(null, null, 'a part of a picture hidden');
    }
}
