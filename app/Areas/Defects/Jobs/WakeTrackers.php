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
use LucidStep\App\Models\TrackerCall;
use LucidStep\App\Models\TrackerConnection;
use LucidStep\Core\Defects\Tracker\CallState;

/**
 * Every minute: what waits and is due is sent, and every few minutes trackers are asked what changed, in case they do not tell.
 */
final class WakeTrackers implements ShouldBeUnique, ShouldQueue
{
    use Queueable;

    private const MINUTES = 3;

    public int $tries = 1;

    public int $timeout = 110;

    /** While the worker is away, one waits and not one a minute. */
    public int $uniqueFor = 3600;

    /**
     * Nothing is asked of the worker where no project files outside.
     */
    public static function ifThereIsOne(): void
    {
        if (TrackerConnection::query()->where('enabled', true)->exists()) {
            self::dispatch();
        }
    }

    public function handle(FollowTracker $follow): void
    {
        $due = TrackerCall::query()->where('state', CallState::Waiting)->where('next_at', '<=', Carbon::now());
        foreach ($due->distinct()->pluck('project_id') as $project) {
            SendTrackerCalls::dispatch((string) $project);
        }
        $asked = Carbon::now()->subMinutes(self::MINUTES);
        $connections = TrackerConnection::query()
            ->where('enabled', true)
            ->where(static fn($q) => $q->whereNull('polled_at')->orWhere('polled_at', '<', $asked))
            ->get();
        foreach ($connections as $connection) {
            try {
                $follow->poll($connection);
            } catch (TrackerAway | TrackerRefused $e) {
                $connection->update(['problem' => $e->getMessage(), 'polled_at' => Carbon::now()]);
            }
        }
    }
}
