<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Tracker;

use Illuminate\Support\Carbon;
use LucidStep\App\Areas\Defects\Jobs\PollTracker;
use LucidStep\App\Areas\Defects\Jobs\SendTrackerCalls;
use LucidStep\App\Models\TrackerCall;
use LucidStep\App\Models\TrackerConnection;
use LucidStep\Core\Defects\Tracker\CallState;

/**
 * Every minute: what waits and is due is sent, and every few minutes each tracker is asked what changed. Where no project files outside,
 * nothing is asked of the worker.
 */
final class WakeTrackers
{
    private const MINUTES = 3;

    public function __invoke(): void
    {
        $due = TrackerCall::query()->where('state', CallState::Waiting)->where('next_at', '<=', Carbon::now());
        foreach ($due->distinct()->pluck('project_id') as $project) {
            SendTrackerCalls::dispatch((string) $project);
        }
        $asked = Carbon::now()->subMinutes(self::MINUTES);
        $connections = TrackerConnection::query()
            ->where('enabled', true)
            ->where(static fn($q) => $q->whereNull('polled_at')->orWhere('polled_at', '<', $asked));
        foreach ($connections->pluck('id') as $connection) {
            PollTracker::dispatch((string) $connection);
        }
    }
}
