<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Jobs;

use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use LucidStep\App\Areas\Cycles\Actions\InsertEntries;
use LucidStep\App\Models\EntryAddition;

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
        if (null !== $found && \in_array($found->state, ['running', 'stopping'], true)) {
            $add->run($found);
        }
    }

    public function failed(): void
    {
        $found = EntryAddition::query()->find($this->addition);
        if (null !== $found && 'done' !== $found->state) {
            app(InsertEntries::class)->takeBack(
                $found,
                'failed',
                'Adding stopped on a fault, which was written to the log. Nothing was added.',
            );
        }
    }
}
