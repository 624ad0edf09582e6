<?php

declare(strict_types=1);

namespace LucidStep\Core\Defects;

/**
 * How old a defect is: only the time in which it was open counts.
 */
final readonly class OpenTime
{
    /**
     * @param  int  $beforeMs in ms, up to when it was last closed
     * @param  ?int  $sinceMs  when it was opened last, in ms since 1970; null: it is closed
     */
    public function __construct(public int $beforeMs, public ?int $sinceMs) {}

    /**
     * What it is once it was moved; to the state it is in already, nothing is otherwise.
     */
    public function moved(DefectState $to, int $nowMs): self
    {
        return match (true) {
            $to->isClosed() => new self($this->at($nowMs), null),
            null === $this->sinceMs => new self($this->beforeMs, $nowMs),
            default => $this,
        };
    }

    /**
     * Its age in ms. A clock that was set back makes it no younger than it was.
     */
    public function at(int $nowMs): int
    {
        return $this->beforeMs + (null === $this->sinceMs ? 0 : max(0, $nowMs - $this->sinceMs));
    }
}
