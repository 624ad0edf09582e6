<?php

declare(strict_types=1);

namespace LucidStep\Core\Defects\Tracker;

/**
 * What came of a call to an outside tracker (rules of the job, 7).
 */
enum Outcome
{
    case Sent;

    /** It is tried again by itself. */
    case Again;
    case Refused;

    /**
     * @param  ?int  $status of the answer; null: none came
     */
    public static function of(?int $status): self
    {
        return match (true) {
            null === $status, 408 === $status, 429 === $status, $status >= 500 => self::Again,
            $status >= 200 && $status < 300 => self::Sent,
            // A redirect is not followed: who knows where it leads.
            default => self::Refused,
        };
    }
}
