<?php

declare(strict_types=1);

namespace LucidStep\Core\Sessions;

/**
 * What the figures need to know of a session.
 */
final readonly class ExploredSession
{
    /**
     * @param  ?int  $build      place of its build among the project's, from 1; null: on none
     * @param  \DateTimeImmutable  $day        when it ended
     * @param  int  $activeMs   without pauses
     * @param  int  $charterMs  of it on the charter
     * @param  int  $testingMs  of it testing
     * @param  int  $issues     and questions, of its timeline
     */
    public function __construct(
        public ?int $build,
        public \DateTimeImmutable $day,
        public int $activeMs,
        public int $charterMs,
        public int $testingMs,
        public int $issues,
        public int $questions,
    ) {}
}
