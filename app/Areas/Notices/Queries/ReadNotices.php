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

    /** So many are put together into these. */
    private const MOST_READ = 300;

    public function notices(User $user): Notices
    {
        // Whoever has left a project reads nothing of it any more.
        $projects = DB::table('memberships')->where('user_id', $user->id)->select('project_id');
        $mine = DB::table('notices')->where('user_id', $user->id)->whereIn('project_id', $projects);
        $groups = [];
        foreach ((clone $mine)->orderByDesc('id')->limit(self::MOST_READ)->get() as $notice) {
            // What is new stands apart from what was read.
            $isRead = null !== $notice->read_at;
            $groups['' === $notice->kind ? $notice->id : "{$notice->kind} {$notice->link} {$isRead}"][] = $notice;
        }
        $items = array_map(
            static fn(array $some): NoticeLine => new NoticeLine(
                $some[0]->id,
                $some[0]->text,
                $some[0]->link,
                UtcTime::time($some[0]->created_at) ?? '',
                null !== $some[0]->read_at,
                array_column(\array_slice($some, 1), 'text'),
            ),
            \array_slice($groups, 0, self::MOST),
        );

        return new Notices((clone $mine)->whereNull('read_at')->count(), array_values($items));
    }
}
