<?php

declare(strict_types=1);

namespace LucidStep\Core\Execution;

/**
 * Entries beside each other on a trail that show the same.
 */
final readonly class TrailRun
{
    /**
     * @param  string  $first the id of the first of them
     * @param  string  $shown what they show: a verdict's value, `in_progress`, `retest` or `held`
     * @param  string  $group marks of another group stand a small gap apart
     * @param  int  $count at least 1
     */
    public function __construct(public string $first, public string $shown, public string $group, public int $count) {}
}
