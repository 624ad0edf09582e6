<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Cycles\Data;

/**
 * What the entries of a cycle are narrowed to.
 */
final readonly class EntryFilter
{
    /**
     * @param  string  $words each stands in the key or the title of the case
     * @param  string  $shows a verdict's value, `in_progress`, `retest` or `held`; empty: any
     * @param  string  $assignee a person's id or `nobody`; empty: anybody
     * @param  string  $configuration its id; empty: any
     * @param  bool  $outdated only those whose case was changed since they were planned
     * @param  bool  $joined only those that wait for another, or that another waits for
     * @param  list<string>  $ids only these; empty: all
     */
    public function __construct(
        public string $words = '',
        public string $shows = '',
        public string $assignee = '',
        public string $configuration = '',
        public bool $outdated = false,
        public bool $joined = false,
        public array $ids = [],
    ) {}
}
