<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Jobs;

use Illuminate\Contracts\Queue\ShouldBeUniqueUntilProcessing;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use LucidStep\App\Areas\Defects\Tracker\DrainCalls;

/**
 * Sends what waits for the tracker of a project. What could not be sent is tried again by the scheduler when its time has come.
 */
final class SendTrackerCalls implements ShouldBeUniqueUntilProcessing, ShouldQueue
{
    use Queueable;

    public int $tries = 1;

    public int $timeout = 110;

    public int $uniqueFor = 120;

    public function __construct(private readonly string $project) {}

    public function uniqueId(): string
    {
        return $this->project;
    }

    public function handle(DrainCalls $drain): void
    {
        $drain($this->project);
    }
}
