<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Time;

/**
 * Times of rows as the API tells them.
 */
final class UtcTime
{
    /**
     * @param  ?string  $time as the database writes it, such as `2026-11-23 10:00:00.5+00`
     *
     * @return ?string `2026-11-23T10:00:00Z`
     */
    public static function time(?string $time): ?string
    {
        // So the database writes nearly all: hundreds of them stand in an answer.
        if (1 === preg_match('/^(\d{4}-\d\d-\d\d) (\d\d:\d\d:\d\d)(\.\d+)?\+00$/', (string) $time, $m)) {
            return "{$m[1]}T{$m[2]}Z";
        }

        return null === $time ? null : (new \DateTimeImmutable($time))->setTimezone(new \DateTimeZone('UTC'))->format('Y-m-d\TH:i:s\Z');
    }
}
