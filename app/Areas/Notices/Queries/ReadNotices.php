<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Notices\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Notices\Data\NoticeLine;
use LucidStep\App\Areas\Notices\Data\Notices;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Time\UtcTime;

/**
 * Reads the notices to a person.
 */
final class ReadNotices
{
    /** So many are shown, the newest first. */
    private const MOST = 50;

    public function notices(User $user): Notices
    {
        // Whoever has left a project reads nothing of it any more.
        $projects = DB::table('memberships')->where('user_id', $user->id)->select('project_id');
        $mine = DB::table('notices')->where('user_id', $user->id)->whereIn('project_id', $projects);
        $items = (clone $mine)
            ->orderByDesc('id')
            ->limit(self::MOST)
            ->get()
            ->map(
                static fn(object $n): NoticeLine => new NoticeLine(
                    $n->id,
                    $n->text,
                    $n->link,
                    UtcTime::time($n->created_at) ?? '',
                    null !== $n->read_at,
                ),
            );

        return new Notices((clone $mine)->whereNull('read_at')->count(), array_values($items->all()));
    }
}
