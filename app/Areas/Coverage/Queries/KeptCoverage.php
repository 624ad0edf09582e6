<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Queries;

use Illuminate\Contracts\Cache\Repository;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\Project;

/**
 * What is proven of the requirements, as answers that are sent, kept packed until something changes in the project. While much is
 * walked it is a few seconds old, and tells as of when; what becomes of requirements and their links is there at once.
 */
final readonly class KeptCoverage
{
    /** Even where nothing seems to have changed: a long transaction hides what came after it began. */
    private const LONGEST_SECONDS = 60;

    public function __construct(private Repository $cache) {}

    /**
     * @param  string  $what is asked of, with whatever the answer depends on beside the lens
     * @template T of object
     *
     * @param  \Closure(): T  $read makes the answer
     * @param  ?\Closure(T): bool  $isWhole whether an answer is kept; null: each is
     *
     * @return string JSON, packed (RFC 1952)
     */
    public function __invoke(Project $project, string $what, CoverageLens $lens, \Closure $read, ?\Closure $isWhole = null): string
    {
        $key = 'coverage:' . hash('sha256', implode('|', [$project->id, $what, ...array_map(strval(...), array_values((array) $lens))]));
        $hold = (int) config('lucid.coverage.hold_seconds');
        $kept = 0 === $hold ? null : $this->cache->get($key);
        $stamp = $this->stamp($project->id);
        $edition = $this->edition($project->id);
        if (\is_array($kept) && $kept['edition'] === $edition) {
            $age = time() - $kept['at'];
            $same = $kept['stamp'] === $stamp && $age < self::LONGEST_SECONDS;
            if ($same || $age < $hold) {
                return $kept['packed'];
            }
        }
        $at = time();
        $answer = $read();
        $json = json_encode($answer, \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES);
        $packed = (string) gzencode($json, 5);
        if (null === $isWhole || $isWhole($answer)) {
            $this->cache->put($key, ['edition' => $edition, 'stamp' => $stamp, 'at' => $at, 'packed' => $packed], 86_400);
        }

        return $packed;
    }

    /**
     * What became of requirements last, and when a case was linked or parted last.
     */
    private function edition(string $project): string
    {
        $last = DB::selectOne(
            'select (select id from requirement_log where project_id = ? order by at desc limit 1) as act, ' .
                '(select max(changed_at) from requirement_links where project_id = ?) as link',
            [$project, $project],
        );

        return "{$last->act} {$last->link}";
    }

    /**
     * The newest change of the project that every transaction sees.
     */
    private function stamp(string $project): string
    {
        $last = DB::selectOne(
            'select xid::text as xid, id from changes where project_id = ? and xid < pg_snapshot_xmin(pg_current_snapshot()) ' .
                'order by xid desc, id desc limit 1',
            [$project],
        );

        return null === $last ? '' : "{$last->xid}.{$last->id}";
    }
}
