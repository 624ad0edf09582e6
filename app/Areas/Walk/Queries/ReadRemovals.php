<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Walk\Data\RemovalLine;
use LucidStep\App\Models\Evidence;
use LucidStep\App\Support\Data\Person;
use LucidStep\App\Support\Time\UtcTime;

/**
 * Reads what was taken out of attempts.
 */
final class ReadRemovals
{
    /**
     * @return list<RemovalLine> all that was taken out of an attempt, the first first
     */
    public function of(string $attempt): array
    {
        return array_values(
            DB::table('removals')
                ->leftJoin('users', 'users.id', '=', 'actor_id')
                ->where('attempt_id', $attempt)
                ->orderBy('at')
                ->get(['kind', 'subject', 'reason', 'at', 'users.id', 'users.name'])
                ->map(
                    static fn(object $r): RemovalLine => new RemovalLine(
                        $r->kind,
                        $r->subject,
                        $r->reason,
                        null === $r->id ? null : new Person($r->id, $r->name),
                        (string) UtcTime::time($r->at),
                    ),
                )
                ->all(),
        );
    }

    /**
     * Whether the content of a piece of evidence was taken out.
     */
    public function isGone(Evidence $evidence): bool
    {
        return DB::table('removals')
            ->where('attempt_id', $evidence->attempt_id)
            ->where('kind', 'file')
            ->where('subject', $evidence->sha256)
            ->exists();
    }
}
