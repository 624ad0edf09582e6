<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Jobs;

use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use LucidStep\App\Areas\Cycles\Actions\InsertEntries;
use LucidStep\App\Models\EntryAddition;
use LucidStep\App\Models\JobState;

/**
 * Adds many entries to a cycle.
 */
final class RunAddition implements ShouldQueue
{
    use Queueable;

    public int $tries = 1;

    public int $timeout = 100;

    public function __construct(private readonly string $addition) {}

    public function handle(InsertEntries $add): void
    {
        $found = EntryAddition::query()->find($this->addition);
        if (null !== $found && \in_array($found->state, [JobState::Running, JobState::Stopping], true)) {
            $add->run($found);
        }
    }

    public function failed(): void
    {
        $found = EntryAddition::query()->find($this->addition);
        if (null !== $found && JobState::Done !== $found->state) {
            app(InsertEntries::class)->takeBack(
                $found,
                JobState::Failed,
                'Adding stopped on a fault, which was written to the log. Nothing was added.',
            );
        }
    }
}
