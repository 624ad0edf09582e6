<?php

declare(strict_types=1);

namespace LucidStep\App\Actions\Walk;

use Illuminate\Support\Facades\DB;

/**
 * Tells the screens that keep themselves current what changed.
 */
final class Announce
{
    /**
     * @param  string  $topic `entry`, `attempt`, `defect`, `case` or `cycle`
     */
    public function __invoke(string $project, string $topic, string $subject, ?string $cycle = null): void
    {
        DB::table('changes')->insert(['project_id' => $project, 'topic' => $topic, 'subject_id' => $subject, 'cycle_id' => $cycle]);
    }
}
