<?php

declare(strict_types=1);

namespace Symfony\Component\Clock;

use Psr\Clock\ClockInterface as PsrClockInterface;

/**
 * A clock that can also sleep and be moved to another time zone.
 */
interface ClockInterface extends PsrClockInterface
{
    /**
     * Waits.
     *
     * @param  float|int  $seconds how long, in seconds; nothing happens for zero or less
     */
    public function sleep(float|int $seconds): void;

    /**
     * A copy of this clock that tells the time in another zone.
     *
     * @throws \DateInvalidTimeZoneException|\Exception when the name is not a time zone
     */
    public function withTimeZone(\DateTimeZone|string $timezone): static;
}
