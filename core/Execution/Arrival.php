<?php

declare(strict_types=1);

namespace LucidStep\Core\Execution;

use LucidStep\Core\Planning\CycleState;
use LucidStep\Core\Verdict\AttemptState;

/**
 * Whether something recorded on a device can still be applied when it arrives (rules of the job, 1, late acts). What was
 * done before a takeover or the closing of the cycle is applied and marked as late; everything else that comes too late
 * is kept and waits for a lead.
 */
final readonly class Arrival
{
    /**
     * @param  bool  $late whether it is applied, and marked as having arrived late
     * @param  ?string  $why  why it cannot be applied and waits for a lead; null when it is applied
     */
    private function __construct(public bool $late, public ?string $why) {}

    /**
     * @param  bool  $records     whether the person records in the project now
     * @param  bool  $own         whether the attempt is the person's now
     * @param  ?\DateTimeImmutable  $doneAt      when it was done, by the server's clock; null when the device does not say
     * @param  ?\DateTimeImmutable  $takenOverAt when another person took the attempt over
     * @param  CycleState  $cycle   the state of the cycle
     * @param  ?\DateTimeImmutable  $closedAt    when the cycle was closed
     */
    public static function judge(
        bool $records,
        AttemptState $attempt,
        bool $own,
        ?\DateTimeImmutable $doneAt,
        ?\DateTimeImmutable $takenOverAt,
        CycleState $cycle,
        ?\DateTimeImmutable $closedAt,
    ): self {
        $before = static fn(?\DateTimeImmutable $edge): bool => null !== $edge && null !== $doneAt && $doneAt < $edge;
        $released = CycleState::Released === $cycle;
        $why = match (true) {
            !$records => 'You do not record in this project any more.',
            AttemptState::Open !== $attempt => "The attempt is {$attempt->value}.",
            !$own && !$before($takenOverAt) => 'The attempt is with another person.',
            !$released && !$before($closedAt) => "The cycle is {$cycle->label()}.",
            default => null,
        };

        return new self(null === $why && (!$own || !$released), $why);
    }

    /**
     * When something was done by the server's clock: a device clock that is off by more than the tolerance is corrected by
     * what it showed when it sent.
     *
     * @param  \DateTimeImmutable  $done      by the device's clock
     * @param  ?\DateTimeImmutable  $sent      by the device's clock
     * @param  \DateTimeImmutable  $arrived   by the server's clock
     * @param  int  $tolerance in ms
     */
    public static function trueTime(
        \DateTimeImmutable $done,
        ?\DateTimeImmutable $sent,
        \DateTimeImmutable $arrived,
        int $tolerance,
    ): \DateTimeImmutable {
        $microseconds = static fn(\DateTimeImmutable $t): int => $t->getTimestamp() * 1_000_000 + (int) $t->format('u');
        $off = null === $sent ? 0 : $microseconds($arrived) - $microseconds($sent);

        return abs($off) <= $tolerance * 1000 ? $done : $done->modify(\sprintf('%+d microseconds', $off));
    }
}
