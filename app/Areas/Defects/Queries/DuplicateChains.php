<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Queries;

use LucidStep\App\Models\Defect;
use LucidStep\Core\Defects\Chains;

/**
 * What in a project is called a duplicate of what.
 */
final class DuplicateChains
{
    public static function of(string $project): Chains
    {
        /** @var array<string, string> $of */
        $of = Defect::query()->where('project_id', $project)->whereNotNull('duplicate_of_id')->pluck('duplicate_of_id', 'id')->all();

        return new Chains($of);
    }
}
