<?php

declare(strict_types=1);

namespace LucidStep\Core\Execution;

/**
 * One reason why an entry is held, or why walking it asks for a word.
 */
final readonly class HeldReason
{
    /**
     * @param  string  $kind  `waits_for`, `needs_pass`, `needs_pass_not_applicable`, `stopped`, `too_early` or `too_late`
     * @param  ?string  $entry the entry it waits for
     * @param  ?string  $name  what people call that entry
     * @param  ?\DateTimeImmutable  $at    the edge of the window
     */
    private function __construct(
        public string $kind,
        public ?string $entry = null,
        public ?string $name = null,
        public ?\DateTimeImmutable $at = null,
    ) {}

    public static function waitsFor(EntryFacts $needed): self
    {
        return new self('waits_for', $needed->id, $needed->name);
    }

    public static function needsPass(EntryFacts $needed): self
    {
        return new self('needs_pass', $needed->id, $needed->name);
    }

    public static function needsPassOfNotApplicable(EntryFacts $needed): self
    {
        return new self('needs_pass_not_applicable', $needed->id, $needed->name);
    }

    public static function stopped(EntryFacts $cause): self
    {
        return new self('stopped', $cause->id, $cause->name);
    }

    public static function tooEarly(\DateTimeImmutable $from): self
    {
        return new self('too_early', at: $from);
    }

    public static function tooLate(\DateTimeImmutable $until): self
    {
        return new self('too_late', at: $until);
    }

    /**
     * In words, such as "needs a pass of SKR-C3".
     *
     * @param  \DateTimeZone  $zone that of the project, by whose clocks times are told
     */
    public function words(\DateTimeZone $zone): string
    {
        $at = $this->at?->setTimezone($zone)->format('j M Y, H:i');

        return match ($this->kind) {
            'waits_for' => "it waits for {$this->name}",
            'needs_pass' => "it needs a pass of {$this->name}",
            'needs_pass_not_applicable' => "it needs a pass of {$this->name}, which is not applicable",
            'stopped' => "it waits on {$this->name}, which did not pass",
            'too_early' => "it is not to be walked before {$at} ({$zone->getName()})",
            default => "it is too late since {$at} ({$zone->getName()})",
        };
    }

    /**
     * Whether a window holds it. A window always holds; a condition may only warn.
     */
    public function isWindow(): bool
    {
        return null !== $this->at;
    }
}
