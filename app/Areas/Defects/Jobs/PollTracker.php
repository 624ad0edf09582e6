<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Jobs;

use Illuminate\Contracts\Queue\ShouldBeUnique;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Illuminate\Support\Carbon;
use LucidStep\App\Areas\Defects\Tracker\FollowTracker;
use LucidStep\App\Areas\Defects\Tracker\TrackerAway;
use LucidStep\App\Areas\Defects\Tracker\TrackerRefused;
use LucidStep\App\Models\TrackerConnection;

/**
 * Asks one tracker what changed, in case it does not tell.
 */
final class PollTracker implements ShouldBeUnique, ShouldQueue
{
    use Queueable;

    public int $tries = 1;

    public int $timeout = 60;

    /** While the worker is away, one waits and not one a minute. */
    public int $uniqueFor = 3600;

    public function __construct(private readonly string $tracker) {}

    public function uniqueId(): string
    {
        return $this->tracker;
    }

    public function handle(FollowTracker $follow): void
    {
        $connection = TrackerConnection::query()->where('enabled', true)->find($this->tracker);
        if (null === $connection) {
            return;
        }
        try {
            $follow->poll($connection);
        } catch (TrackerAway | TrackerRefused $e) {
            $connection->update(['problem' => $e->getMessage(), 'polled_at' => Carbon::now()]);
        }
    }
}
