<?php

declare(strict_types=1);

namespace LucidStep\Core\Coverage;

/**
 * What a requirement comes to over its cases and those below it.
 */
final readonly class RequirementOutcome
{
    /**
     * @param  CoverageState  $state the worst over itself, if it has cases, and those below it
     * @param  int  $cases different ones, linked to it or to one below it
     * @param  int  $walked of these
     * @param  array<string, int>  $caseCounts how many of these cases show which state
     * @param  array<string, int>  $counts over it and all below that have cases or nothing below them: how many show which state
     */
    public function __construct(
        public CoverageState $state,
        public int $cases,
        public int $walked,
        public array $caseCounts,
        public array $counts,
    ) {}
}
