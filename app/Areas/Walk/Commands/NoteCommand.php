<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Commands;

use LucidStep\Core\Data\Mask;

/**
 * Writes the note of a step, or of the whole attempt; an empty one removes it.
 */
final readonly class NoteCommand implements AttemptCommand
{
    public function __construct(public ?int $round, public ?int $step, public string $note) {}

    public static function fromPayload(Payload $payload): self
    {
        return new self($payload->intOrNull('round'), $payload->intOrNull('step'), $payload->text('note'));
    }

    public function kind(): string
    {
        return 'note_written';
    }

    public function payload(): array
    {
        return ['round' => $this->round, 'step' => $this->step, 'note' => $this->note];
    }

    public function masked(Mask $mask): self
    {
        return new self($this->round, $this->step, $mask->text($this->note));
    }

    public function description(): string
    {
        return CommandWords::at(
            $this->round,
            $this->step,
            '' === $this->note ? 'note taken away' : 'note' . CommandWords::quoted($this->note),
        );
    }
}
