<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Tracker;

/**
 * A defect as the tracker has it.
 */
final readonly class OutsideIssue
{
    /**
     * @param  string  $changed when, as the tracker tells it; empty: it does not
     */
    public function __construct(
        public string $key,
        public string $state,
        public string $assignee = '',
        public string $url = '',
        public string $changed = '',
    ) {}
}
