<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Jobs;

use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use LucidStep\App\Areas\Casebook\Exchange\ImportCases;
use LucidStep\App\Models\CaseImport;
use LucidStep\App\Models\JobState;
use LucidStep\App\Support\Changes\Actor;

/**
 * Writes the cases of a file that was read.
 */
final class RunImport implements ShouldQueue
{
    use Queueable;

    public int $tries = 1;

    public int $timeout = 100;

    public function __construct(private readonly string $import) {}

    public function handle(ImportCases $import): void
    {
        $found = CaseImport::query()->find($this->import);
        if (null !== $found && JobState::Running === $found->state) {
            Actor::during($found->author_id, static fn() => $import->run($found));
        }
    }

    public function failed(): void
    {
        CaseImport::query()
            ->whereKey($this->import)
            ->update([
                'state' => JobState::Failed,
                'problem' => 'The import stopped on a fault, which was written to the log. Nothing was brought in.',
            ]);
    }
}
