<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\Core\Forecast\Estimate;

/**
 * How long entries are likely to take: from the newest walks of their case, the author's estimate, or the steps.
 */
final class Estimates
{
    /**
     * @param  string  $project its id
     */
    public function __construct(private readonly string $project, private ?float $perStep = null, private bool $asked = false) {}

    /**
     * Seconds for a round.
     *
     * @param  string  $times  the case's newest times, as JSON
     */
    public function round(string $times, ?int $author, int $steps): int
    {
        if ('[]' === $times && null !== $author) {
            return $author;
        }
        /** @var list<int> $newest */
        $newest = json_decode($times, true) ?: [];

        return Estimate::ofRound($newest, $author, $steps, [] === $newest && null === $author ? $this->perStep() : null);
    }

    /**
     * Seconds for an entry.
     */
    public function entry(string $times, ?int $author, int $steps, int $rounds): int
    {
        return Estimate::ofEntry($this->round($times, $author, $steps), $rounds);
    }

    /**
     * Takes the newest walks of a case that count into its times: walked step by step, active time over 0, every step
     * judged or ended by a fail.
     */
    public static function renew(string $case): void
    {
        DB::update(
            <<<'SQL'
            update cases set walk_times = coalesce((select jsonb_agg(t.seconds order by t.finished_at desc) from (
                select greatest(1, round(coalesce(a.corrected_ms, a.active_ms) / 1000.0 / greatest(1, (select count(*)
                    from rounds r where r.attempt_id = a.id))))::int as seconds, a.finished_at
                from attempts a join entries e on e.id = a.entry_id
                where e.case_id = cases.id and a.state = 'finished' and coalesce(a.corrected_ms, a.active_ms) > 0
                  and (a.roll_up = 'fail' or not exists (select 1 from rounds r join step_results s on s.round_id = r.id
                      where r.attempt_id = a.id and s.verdict = 'not_run'))
                order by a.finished_at desc limit 10) t), '[]') where id = ?
            SQL
            ,
            [$case],
        );
    }

    /**
     * The project's median seconds per step, over the newest time of each case; null when nothing was walked.
     */
    private function perStep(): ?float
    {
        if (!$this->asked) {
            $this->asked = true;
            $median = DB::scalar(
                'select percentile_cont(0.5) within group (order by (walk_times ->> 0)::float / greatest(1, ' .
                    "steps_count)) from cases where project_id = ? and walk_times <> '[]'",
                [$this->project],
            );
            $this->perStep = null === $median ? null : (float) $median;
        }

        return $this->perStep;
    }
}
