<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Coverage\Queries;

use Illuminate\Contracts\Cache\Repository;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Coverage\Data\CoveragePoint;
use LucidStep\App\Areas\Coverage\Data\CoverageTrend;
use LucidStep\App\Areas\Coverage\Data\StateCount;
use LucidStep\App\Models\Project;

/**
 * Reads what was proven at the end of each day. What came late never alters a day that is past, so each is counted once and kept; a
 * request counts at least one, goes on as long as it may take, and leaves the rest to the next one.
 */
final readonly class ReadCoverageTrend
{
    /** Days stay counted for so long after they were asked of. */
    private const KEPT_SECONDS = 400 * 86_400;

    public function __construct(private Repository $cache) {}

    /**
     * @param  int  $days that it goes back
     */
    public function __invoke(Project $project, CoverageLens $lens, int $days): CoverageTrend
    {
        $began = hrtime(true);
        $last = Carbon::parse($lens->at)->setTimezone($project->time_zone);
        // The last moment of a day that is past belongs to it.
        $today = (null === $lens->at ? $last : $last->copy()->subDay())->startOfDay();
        $first = DB::table('requirement_places')->where('project_id', $project->id)->min('since');
        $points = [];
        $missing = $counted = 0;
        $seconds = (float) config('lucid.coverage.count_seconds');
        for ($back = $days; $back > 0 && null !== $first; $back--) {
            $day = $today->copy()->subDays($back);
            $end = $day->copy()->addDay();
            if ($end <= Carbon::parse($first)) {
                continue;
            }
            $past = $lens->at($end->format('Y-m-d H:i:s.uP'));
            $key = 'coverage-day:' . hash('sha256', serialize([$project->id, $past]));
            $point = $this->cache->get($key);
            if (!($point instanceof CoveragePoint) && $counted > 0 && hrtime(true) - $began > $seconds * 1e9) {
                $missing++;
                continue;
            }
            if (!($point instanceof CoveragePoint)) {
                $point = $this->point($project, $past, $day);
                $this->cache->put($key, $point, self::KEPT_SECONDS);
                $counted++;
            }
            $points[] = $point;
        }

        return new CoverageTrend([...$points, $this->point($project, $lens, $today)], $missing);
    }

    private function point(Project $project, CoverageLens $lens, Carbon $day): CoveragePoint
    {
        $found = CoverageCounts::of($project->id, $lens);

        return new CoveragePoint($day->format('Y-m-d'), StateCount::all($found->counts), $found->cases, $found->walked);
    }
}
