<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Jobs;

use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use LucidStep\App\Areas\Casebook\Exchange\ExportCases;
use LucidStep\App\Models\CaseExport;
use LucidStep\App\Models\JobState;

/**
 * Writes the file of an export.
 */
final class RunExport implements ShouldQueue
{
    use Queueable;

    public int $tries = 1;

    public int $timeout = 100;

    public function __construct(private readonly string $export) {}

    public function handle(ExportCases $export): void
    {
        $found = CaseExport::query()->find($this->export);
        if (null !== $found) {
            $export->run($found);
        }
    }

    public function failed(): void
    {
        CaseExport::query()
            ->whereKey($this->export)
            ->update(['state' => JobState::Failed, 'problem' => 'The file could not be written; the fault was written to the log.']);
    }
}
