<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Commands;

use LucidStep\Core\Data\Mask;

/**
 * Captions a piece of evidence; an empty caption removes it.
 */
final readonly class CaptionCommand implements EvidenceCommand
{
    public function __construct(public string $evidenceId, public string $caption) {}

    public static function fromPayload(Payload $payload): self
    {
        return new self($payload->text('evidence'), $payload->text('to'));
    }

    public function evidenceId(): string
    {
        return $this->evidenceId;
    }

    public function kind(): string
    {
        return 'evidence_captioned';
    }

    public function payload(): array
    {
        return ['evidence' => $this->evidenceId, 'to' => $this->caption];
    }

    public function masked(Mask $mask): self
    {
        return new self($this->evidenceId, $mask->text($this->caption));
    }

    public function description(): string
    {
        return CommandWords::at(null, null, 'caption' . CommandWords::quoted($this->caption));
    }
}
