<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Commands;

use LucidStep\Core\Data\Mask;

/**
 * Draws on a picture: what is drawn stays apart, the picture with it on is kept beside.
 */
final readonly class MarkUpCommand implements EvidenceCommand
{
    public function __construct(
        public string $evidenceId,
        /** @var ?array<string, mixed> the shapes; none takes them off */
        public ?array $markup,
        public ?string $markedSha256,
    ) {}

    public static function fromPayload(Payload $payload): self
    {
        return new self($payload->text('evidence'), $payload->objectOrNull('markup'), $payload->textOrNull('marked_sha256'));
    }

    public function evidenceId(): string
    {
        return $this->evidenceId;
    }

    public function kind(): string
    {
        return 'evidence_marked';
    }

    public function payload(): array
    {
        return ['evidence' => $this->evidenceId, 'markup' => $this->markup, 'marked_sha256' => $this->markedSha256];
    }

    public function masked(Mask $mask): self
    {
        return $this;
    }

    public function description(): string
    {
        return CommandWords::at(null, null, 'a picture drawn on');
    }
}
