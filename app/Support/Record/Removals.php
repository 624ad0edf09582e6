<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Record;

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use LucidStep\App\Models\User;

/**
 * The trace of what was taken out: who, when, why, and of what.
 */
final class Removals
{
    /**
     * What a row of which words were taken out says of that.
     *
     * @return array{removed_by_id: string, removed_at: Carbon, removed_reason: string}
     */
    public static function trace(User $by, string $reason): array
    {
        return ['removed_by_id' => $by->id, 'removed_at' => Carbon::now(), 'removed_reason' => $reason];
    }

    /**
     * @param  ?string  $attempt in whose record it stood; null beside the record
     * @param  'file'|'text'|'message'|'entry'|'cycle_event'|'session_event'|'cycle_log'|'setup_log'  $kind
     * @param  string  $subject SHA-256 of a file, number of an event (of a cycle or a session: its id, `/`, number), or the id of what the
     *                          words stood on
     * @param  ?User  $by null: the application itself
     */
    public static function add(string $project, ?string $attempt, string $kind, string $subject, string $reason, ?User $by): void
    {
        DB::table('removals')->insert([
            'id' => (string) Str::uuid7(),
            'project_id' => $project,
            'attempt_id' => $attempt,
            'kind' => $kind,
            'subject' => $subject,
            'reason' => $reason,
            'actor_id' => $by?->id,
            'at' => Carbon::now(),
        ]);
    }
}
