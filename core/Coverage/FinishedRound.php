<?php

declare(strict_types=1);

namespace LucidStep\Core\Coverage;

use LucidStep\Core\Verdict\EntryState;
use LucidStep\Core\Verdict\Verdict;

/**
 * A round of a finished attempt, as far as coverage asks for it. One that was left out, or walked again, is none.
 */
final readonly class FinishedRound
{
    /**
     * @param  ?string  $configuration that the attempt recorded
     * @param  ?string  $row of the case's data table
     * @param  ?int  $build  its place in the order of builds, from 1; null: recorded on none
     * @param  int  $finished when the attempt ended, in µs since 1970
     * @param  Verdict  $verdict  the final one of the attempt, where it was overruled or judged from the list
     * @param  string  $shown what its entry shows by now ({@see EntryState::$displayState})
     */
    public function __construct(
        public string $case,
        public ?string $configuration,
        public ?string $row,
        public ?int $build,
        public int $finished,
        public Verdict $verdict,
        public string $shown,
    ) {}

    /**
     * Whether it counts before another of its cell: by the build's order, then by when it was finished.
     */
    public function isNewerThan(self $other): bool
    {
        return [$this->build ?? 0, $this->finished] > [$other->build ?? 0, $other->finished];
    }

    public function state(): CoverageState
    {
        return match ($this->shown) {
            EntryState::RETEST => CoverageState::Retest,
            Verdict::InProgress->value => CoverageState::InProgress,
            default => CoverageState::from($this->verdict->value),
        };
    }
}
