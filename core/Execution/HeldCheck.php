<?php

declare(strict_types=1);

namespace LucidStep\Core\Execution;

use LucidStep\Core\Planning\ConditionKind;
use LucidStep\Core\Verdict\EntryState;

/**
 * Whether entries are held at a moment, without saying why: for counting many. The same as {@see CycleView::readiness} says.
 */
final readonly class HeldCheck
{
    /**
     * @param  bool  $conditionsHold false: a condition that is not met only warns
     */
    public function __construct(private \DateTimeImmutable $now, private bool $conditionsHold = true) {}

    /**
     * By its window alone.
     *
     * @param  ?\DateTimeImmutable  $notBefore inclusive
     * @param  ?\DateTimeImmutable  $notAfter exclusive
     */
    public function byWindow(EntryState $state, ?\DateTimeImmutable $notBefore, ?\DateTimeImmutable $notAfter): bool
    {
        $closed = (null !== $notBefore && $this->now < $notBefore) || (null !== $notAfter && $this->now >= $notAfter);

        return $closed && !$state->isDone();
    }

    /**
     * By another whose fail or block stops it, as the state of the entry says.
     */
    public function byStop(EntryState $state): bool
    {
        return !$state->isDone();
    }

    /**
     * By a single condition.
     */
    public function byCondition(EntryState $state, ConditionKind $kind, EntryState $needed): bool
    {
        return $this->conditionsHold && !$state->isDone() && !$kind->isMetBy($needed);
    }
}
