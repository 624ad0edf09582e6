<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Commands;

use LucidStep\Core\Data\Mask;

/**
 * Keeps how far a picture differs from its reference.
 */
final readonly class CompareCommand implements EvidenceCommand
{
    public function __construct(public string $evidenceId, public string $reference) {}

    public static function fromPayload(Payload $payload): self
    {
        return new self($payload->text('evidence'), $payload->text('reference'));
    }

    public function evidenceId(): string
    {
        return $this->evidenceId;
    }

    public function kind(): string
    {
        return 'compared';
    }

    public function payload(): array
    {
        return ['evidence' => $this->evidenceId, 'reference' => $this->reference];
    }

    public function masked(Mask $mask): self
    {
        return $this;
    }

    public function description(): string
    {
        return CommandWords::at(null, null, 'a picture compared with its reference');
    }
}
