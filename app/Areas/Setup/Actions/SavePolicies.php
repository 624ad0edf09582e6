<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Setup\Actions;

use LucidStep\App\Models\Project;
use LucidStep\App\Support\Changes\PublishChange;
use LucidStep\Core\Verdict\Policies;

/**
 * Changes a project's policies; those left out stay.
 */
final readonly class SavePolicies
{
    public function __construct(private PublishChange $publish) {}

    /**
     * @param  array<array-key, mixed>  $changes by the policies' names
     */
    public function __invoke(Project $project, array $changes): void
    {
        $policies = Policies::fromArray([...Policies::fromArray($project->policies)->toArray(), ...$changes]);
        $project->update(['policies' => $policies->toArray()]);
        ($this->publish)($project->id, 'entry', $project->id);
    }
}
