<?php

declare(strict_types=1);

namespace LucidStep\Core\Defects\Tracker;

/**
 * What goes to an outside tracker next: the calls of a defect in their order, one after the other. Each is tried again after 1, 2, 4, 8 …
 * minutes, at most 60; after five that failed in a row the whole connection rests for a minute.
 */
final class Outbox
{
    public const REST_AFTER = 5;

    public const REST_SECONDS = 60;

    private const MOST_MINUTES = 60;

    /** By so much of itself a delay is shorter or longer, so that not all come back at once. */
    private const JITTER = 0.2;

    /**
     * @param  list<OutboxCall>  $calls in any order
     * @param  int  $now in seconds since 1970
     *
     * @return ?OutboxCall null while none may go
     */
    public static function next(array $calls, int $now): ?OutboxCall
    {
        usort($calls, static fn(OutboxCall $a, OutboxCall $b): int => $a->number <=> $b->number);
        $held = [];
        foreach ($calls as $call) {
            if ($call->state->isDone() || isset($held[$call->defect])) {
                continue;
            }
            if (CallState::Waiting === $call->state && $call->nextAt <= $now) {
                return $call;
            }
            $held[$call->defect] = true;
        }

        return null;
    }

    /**
     * Seconds until a call that was tried so often is tried again.
     *
     * @param  float  $random from 0 to 1
     */
    public static function delay(int $tries, float $random): int
    {
        $minutes = min(self::MOST_MINUTES, 2 ** min(10, max(0, $tries - 1)));

        return min(self::MOST_MINUTES * 60, (int) round($minutes * 60 * (1 - self::JITTER + 2 * self::JITTER * $random)));
    }
}
