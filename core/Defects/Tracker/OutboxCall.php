<?php

declare(strict_types=1);

namespace LucidStep\Core\Defects\Tracker;

/**
 * A call that is to go to an outside tracker, as far as its turn goes.
 */
final readonly class OutboxCall
{
    /**
     * @param  string  $defect whose calls go in their order
     * @param  int  $number in the order in which they were made
     * @param  int  $tries  how often it was tried
     * @param  int  $nextAt when it may be tried again, in seconds since 1970
     */
    public function __construct(
        public string $id,
        public string $defect,
        public int $number,
        public CallState $state = CallState::Waiting,
        public int $tries = 0,
        public int $nextAt = 0,
    ) {}

    /**
     * What it is once it was tried.
     *
     * @param  int  $now    in seconds since 1970
     * @param  float  $random from 0 to 1
     */
    public function after(Outcome $outcome, int $now, float $random): self
    {
        $tries = $this->tries + 1;

        return new self(
            $this->id,
            $this->defect,
            $this->number,
            match ($outcome) {
                Outcome::Sent => CallState::Sent,
                Outcome::Refused => CallState::Refused,
                Outcome::Again => CallState::Waiting,
            },
            $tries,
            Outcome::Again === $outcome ? $now + Outbox::delay($tries, $random) : $this->nextAt,
        );
    }
}
