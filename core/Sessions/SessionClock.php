<?php

declare(strict_types=1);

namespace LucidStep\Core\Sessions;

/**
 * The clock of a session: it runs from its start to its end, pauses left out.
 */
final readonly class SessionClock
{
    /**
     * @param  list<array{int, ?int}>  $runs from and to in ms since 1970, in order and apart; null: it is running
     */
    public function __construct(private array $runs) {}

    /**
     * What it shows at a moment.
     *
     * @param  int  $at ms since 1970
     *
     * @return int whole ms; in a pause what it stood at, before the start 0
     */
    public function at(int $at): int
    {
        $active = 0;
        foreach ($this->runs as [$from, $to]) {
            $active += max(0, min($at, $to ?? $at) - $from);
        }

        return $active;
    }

    /**
     * Whether it ran at a moment.
     *
     * @param  int  $at ms since 1970
     */
    public function ranAt(int $at): bool
    {
        foreach ($this->runs as [$from, $to]) {
            if ($at >= $from && (null === $to || $at <= $to)) {
                return true;
            }
        }

        return false;
    }

    public function isRunning(): bool
    {
        $last = $this->runs[\count($this->runs) - 1] ?? null;

        return null !== $last && null === $last[1];
    }

    /**
     * @param  int  $at ms since 1970; before its last act, it begins then
     */
    public function started(int $at): self
    {
        return $this->isRunning() ? $this : new self([...$this->runs, [max($at, $this->last()), null]]);
    }

    public function stopped(int $at): self
    {
        if (!$this->isRunning()) {
            return $this;
        }
        $before = \array_slice($this->runs, 0, -1);
        $from = $this->runs[\count($this->runs) - 1][0];

        return new self([...$before, [$from, max($at, $from)]]);
    }

    /**
     * @return list<array{int, ?int}>
     */
    public function runs(): array
    {
        return $this->runs;
    }

    private function last(): int
    {
        $last = $this->runs[\count($this->runs) - 1] ?? [0, 0];

        return $last[1] ?? $last[0];
    }
}
