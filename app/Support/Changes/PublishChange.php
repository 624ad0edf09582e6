<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Changes;

use Illuminate\Support\Facades\DB;

/**
 * Tells the screens that keep themselves current what changed.
 */
final class PublishChange
{
    /**
     * @param  value-of<ChangeLine::TOPICS>  $topic
     */
    public function __invoke(string $project, string $topic, string $subject, ?string $cycle = null): void
    {
        DB::table('changes')->insert(['project_id' => $project, 'topic' => $topic, 'subject_id' => $subject, 'cycle_id' => $cycle]);
    }

    /**
     * The same of many, at once.
     *
     * @param  value-of<ChangeLine::TOPICS>  $topic
     * @param  list<string>  $subjects
     */
    public function all(string $project, string $topic, array $subjects): void
    {
        DB::table('changes')->insert(
            array_map(static fn(string $id): array => ['project_id' => $project, 'topic' => $topic, 'subject_id' => $id], $subjects),
        );
    }
}
