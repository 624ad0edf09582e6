<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

use LucidStep\App\Support\Data\Named;

/**
 * What all entries of a cycle make together.
 */
final readonly class CycleSums
{
    /**
     * @param  array<string, int>  $counts entries by what they show
     * @param  list<string>  $assignees ids of people
     * @param  list<Named>  $configurations in the order of the project
     * @param  bool  $walked whether one of them was walked
     * @param  int  $outdated entries whose case was changed since they were planned
     */
    public function __construct(
        public array $counts,
        public array $assignees,
        public array $configurations,
        public int $outdated,
        public int $activeMs,
        public bool $walked,
    ) {}
}
