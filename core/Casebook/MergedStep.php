<?php

declare(strict_types=1);

namespace LucidStep\Core\Casebook;

/**
 * One step in a three-way view.
 */
final readonly class MergedStep
{
    /**
     * @param  'same'|'mine'|'theirs'|'both'|'conflict'  $outcome `both`: each side changed another part of it
     * @param  ?Step  $result what is proposed; null when the step goes. Where they conflict mine, or theirs when mine is gone
     */
    public function __construct(
        public string $outcome,
        public ?Step $base,
        public ?Step $mine,
        public ?Step $theirs,
        public ?Step $result,
    ) {}
}
