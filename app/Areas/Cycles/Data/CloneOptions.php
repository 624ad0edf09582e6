<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

/**
 * How a cycle, or a milestone with its cycles, is cloned.
 */
final readonly class CloneOptions
{
    /**
     * @param  string  $name of the new cycle or milestone
     * @param  string  $date Y-m-d: its first day, or the day the milestone is due
     * @param  string  $which entries are taken, a key of {@see \LucidStep\App\Areas\Cycles\Queries\ReadCloneable::WHICH}
     * @param  ?string  $buildId null: the same as before
     * @param  bool  $avoidsDaysOff whether starts and ends are moved to working days
     * @param  bool  $samePeople whether entries stay with whom they were assigned to
     * @param  bool  $keepsMilestone whether the clone of a cycle stays in its milestone
     * @param  ?string  $milestoneId where it goes else; null: into none
     */
    public function __construct(
        public string $name,
        public string $date,
        public string $which = 'all',
        public ?string $buildId = null,
        public bool $avoidsDaysOff = false,
        public bool $samePeople = true,
        public bool $keepsMilestone = true,
        public ?string $milestoneId = null,
    ) {}
}
