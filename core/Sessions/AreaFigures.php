<?php

declare(strict_types=1);

namespace LucidStep\Core\Sessions;

/**
 * Figures over the sessions of an area: of a folder, a label, a requirement, a build or a person (rules of the job, 8).
 */
final readonly class AreaFigures
{
    private function __construct(
        public int $sessions,
        public int $activeMs,
        /** Share of the active time on the charter, 0 to 1; null without any. */
        public ?float $onCharter,
        public int $issues,
        public int $questions,
        /** Issues an hour of testing. */
        public ?PoissonRate $issuesPerHour,
        /** Whole days since the last one; null: never. */
        public ?int $daysSince,
        /** How many builds came since the newest that was explored; null: on none. */
        public ?int $buildsSince,
        /** Place of the newest build that was explored; null: none was. */
        public ?int $newest,
    ) {}

    /**
     * @param  list<ExploredSession>  $sessions
     * @param  int  $newestBuild of the project, by its place; 0: there is none
     */
    public static function of(array $sessions, int $newestBuild, \DateTimeImmutable $today): self
    {
        $sum = static fn(\Closure $of): int => array_sum(array_map($of, $sessions));
        $active = $sum(static fn(ExploredSession $s): int => $s->activeMs);
        $issues = $sum(static fn(ExploredSession $s): int => $s->issues);
        $builds = array_filter(array_map(static fn(ExploredSession $s): int => $s->build ?? 0, $sessions));
        $newest = [] === $builds ? null : max($builds);
        $days = array_map(static fn(ExploredSession $s): int => (int) $s->day->diff($today)->format('%r%a'), $sessions);

        return new self(
            \count($sessions),
            $active,
            0 === $active ? null : $sum(static fn(ExploredSession $s): int => $s->charterMs) / $active,
            $issues,
            $sum(static fn(ExploredSession $s): int => $s->questions),
            PoissonRate::of($issues, $sum(static fn(ExploredSession $s): int => $s->testingMs)),
            [] === $days ? null : max(0, min($days)),
            null === $newest ? null : max(0, $newestBuild - $newest),
            $newest,
        );
    }

    /**
     * Whether there is a build newer than any that was explored here.
     */
    public function isBehind(): bool
    {
        return null === $this->newest || ($this->buildsSince ?? 0) > 0;
    }
}
