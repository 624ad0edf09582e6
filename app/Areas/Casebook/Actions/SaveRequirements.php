<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Casebook\Actions;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\Requirement;
use LucidStep\App\Support\Keys\NextKey;

/**
 * Makes requirements, so that cases can be linked to them.
 */
final readonly class SaveRequirements
{
    public function __construct(private NextKey $nextKey) {}

    public function make(Project $project, string $title, ?string $parent): Requirement
    {
        $number = $this->nextKey->reserve($project, 'requirement');
        $known = null === $parent ? null : DB::table('requirements')->where('project_id', $project->id)->where('id', $parent)->value('id');

        return Requirement::query()->create([
            'project_id' => $project->id,
            'number' => $number,
            'key' => "{$project->code}-Q{$number}",
            'title' => $title,
            'parent_id' => $known,
        ]);
    }
}
