<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Background;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\Cache;

/**
 * Whether what works in the background lives: the queue worker and the scheduler say so every few seconds or minutes, and
 * whoever waits for them is told when they do not.
 */
final class BackgroundWork
{
    public const WORKER = 'worker';

    public const SCHEDULER = 'scheduler';

    /** Seconds without a sign after which it counts as dead. */
    private const SILENCE = [self::WORKER => 60, self::SCHEDULER => 300];

    /** Seconds between two signs of a worker that has nothing to do. */
    private const BEAT = 10;

    private static int $last = 0;

    private static int $since = 0;

    /**
     * @param  self::WORKER|self::SCHEDULER  $part
     * @param  int  $for seconds for which it will be too busy to give another sign
     *
     * @return bool whether it gave one; a worker that gave one just now does not give it again
     */
    public static function alive(string $part, int $for = 0): bool
    {
        $now = Carbon::now()->getTimestamp();
        if (0 === $for && self::WORKER === $part && abs($now - self::$last) < self::BEAT) {
            return false;
        }
        self::$last = $now;
        Cache::forever("alive-{$part}", $now + $for);

        return true;
    }

    /**
     * @param  self::WORKER|self::SCHEDULER  $part
     */
    public static function isDead(string $part): bool
    {
        return Carbon::now()->getTimestamp() - (int) Cache::get("alive-{$part}", 0) > self::SILENCE[$part];
    }

    /**
     * Whether this process has run so long that the other part, started with it, must have given a sign.
     */
    public static function isSettled(): bool
    {
        $now = Carbon::now()->getTimestamp();
        self::$since = 0 === self::$since ? $now : self::$since;

        return $now - self::$since > self::SILENCE[self::SCHEDULER];
    }

    /**
     * @return string what to say to somebody who waits for a job; empty when it will go on
     */
    public static function standstill(): string
    {
        return 'database' === config('queue.default') && self::isDead(self::WORKER)
            ? 'Nothing goes on: the background worker does not run. It goes on by itself when it does; the admins were told.'
            : '';
    }
}
