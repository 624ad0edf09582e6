<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Commands;

use LucidStep\Core\Data\Mask;

/**
 * Attaches a file that is stored already, or a link, to a step or to the attempt.
 */
final readonly class AddEvidenceCommand implements AttemptCommand
{
    public function __construct(
        public string $id,
        public ?int $round,
        public ?int $step,
        public ?string $sha256,
        public string $link = '',
        public string $name = '',
        public string $caption = '',
        public string $source = 'file',
    ) {}

    public static function fromPayload(Payload $payload): self
    {
        return new self(
            $payload->text('id'),
            $payload->intOrNull('round'),
            $payload->intOrNull('step'),
            $payload->textOrNull('sha256'),
            $payload->text('link'),
            $payload->text('name'),
            $payload->text('caption'),
            $payload->textOrNull('source') ?? 'file',
        );
    }

    public function kind(): string
    {
        return 'evidence_added';
    }

    public function payload(): array
    {
        return [
            'id' => $this->id,
            'round' => $this->round,
            'step' => $this->step,
            'sha256' => $this->sha256,
            'link' => $this->link,
            'name' => $this->name,
            'caption' => $this->caption,
            'source' => $this->source,
        ];
    }

    public function masked(Mask $mask): self
    {
        return new self(
            $this->id,
            $this->round,
            $this->step,
            $this->sha256,
            $mask->text($this->link),
            $mask->text($this->name),
            $mask->text($this->caption),
            $this->source,
        );
    }

    public function description(): string
    {
        return CommandWords::at($this->round, $this->step, 'evidence' . CommandWords::quoted($this->name));
    }
}
