<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Commands;

use LucidStep\Core\Data\Mask;
use LucidStep\Core\Verdict\Verdict;

/**
 * Gives a step its verdict, or takes it back. Words that do not belong to the verdict are dropped.
 */
final readonly class VerdictCommand implements AttemptCommand
{
    public function __construct(
        public int $round,
        public int $step,
        public Verdict $verdict,
        public string $happened = '',
        public string $reason = '',
        public string $waitsOn = '',
        public int $activeMs = 0,
    ) {}

    public static function fromPayload(Payload $payload): self
    {
        return new self(
            $payload->int('round'),
            $payload->int('step'),
            Verdict::from($payload->text('verdict')),
            $payload->text('happened'),
            $payload->text('reason'),
            $payload->text('waits_on'),
            $payload->int('active_ms'),
        );
    }

    public function kind(): string
    {
        return 'verdict_given';
    }

    public function payload(): array
    {
        return [
            'round' => $this->round,
            'step' => $this->step,
            'verdict' => $this->verdict->value,
            'happened' => $this->happened,
            'reason' => $this->reason,
            'waits_on' => $this->waitsOn,
            'active_ms' => $this->activeMs,
        ];
    }

    public function masked(Mask $mask): self
    {
        return new self(
            $this->round,
            $this->step,
            $this->verdict,
            $mask->text($this->happened),
            $mask->text($this->reason),
            $mask->text($this->waitsOn),
            $this->activeMs,
        );
    }

    public function description(): string
    {
        return CommandWords::at(
            $this->round,
            $this->step,
            CommandWords::verdict($this->verdict) .
                CommandWords::quoted($this->happened, $this->reason, '' === $this->waitsOn ? '' : "waits on {$this->waitsOn}"),
        );
    }

    /**
     * The words that belong to the verdict.
     *
     * @return array{happened: string, reason: string, waits_on: string}
     */
    public function words(): array
    {
        return [
            'happened' => Verdict::Fail === $this->verdict ? $this->happened : '',
            'reason' => Verdict::NotRun === $this->verdict ? '' : $this->reason,
            'waits_on' => Verdict::Blocked === $this->verdict ? $this->waitsOn : '',
        ];
    }
}
