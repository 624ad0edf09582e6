<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Jobs;

use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use LucidStep\App\Areas\People\Actions\DeleteProject;
use LucidStep\App\Models\Project;

/**
 * Takes the rows and files of a deleted project away, however many there are.
 */
final class DeleteProjectRows implements ShouldQueue
{
    use Queueable;

    public int $tries = 3;

    public int $timeout = 3600;

    public function __construct(private readonly string $project, private readonly string $deletion) {}

    public function handle(DeleteProject $delete): void
    {
        if (Project::query()->whereKey($this->project)->exists()) {
            $delete->now($this->project, $this->deletion);
        }
    }
}
