<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Changes;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\Project;

/**
 * Reads the change feed. A cursor is a transaction and a row in it; only rows of transactions older than
 * every one still running are shown, so that nothing committed late is skipped.
 */
final class ReadChanges
{
    private const MOST = 500;

    /**
     * @return ?ChangeFeed null when nothing changed since the cursor
     */
    public function __invoke(Project $project, ?string $after): ?ChangeFeed
    {
        if (null === $after || 1 !== preg_match('/^(\d{1,19})\.(\d{1,18})$/', $after, $m)) {
            $now = DB::selectOne('select pg_snapshot_xmin(pg_current_snapshot())::text as xid');

            return new ChangeFeed("{$now->xid}.0", []);
        }
        $rows = DB::select(
            'select xid::text as xid, id, topic, subject_id, cycle_id from changes
             where project_id = ? and (xid, id) > (?::text::xid8, ?) and xid < pg_snapshot_xmin(pg_current_snapshot())
             order by xid, id limit ' . self::MOST,
            [$project->id, $m[1], (int) $m[2]],
        );
        if ([] === $rows) {
            return null;
        }
        $last = $rows[\count($rows) - 1];

        return new ChangeFeed(
            "{$last->xid}.{$last->id}",
            array_values(array_map(static fn(\stdClass $r): ChangeLine => new ChangeLine($r->topic, $r->subject_id, $r->cycle_id), $rows)),
        );
    }
}
