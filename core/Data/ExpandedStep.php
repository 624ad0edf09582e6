<?php

declare(strict_types=1);

namespace LucidStep\Core\Data;

use LucidStep\Core\Casebook\Step;

/**
 * A step as it is walked, and where it came from.
 */
final readonly class ExpandedStep
{
    /**
     * @param  int  $position the case's own step it stands at, from 1
     * @param  list<string>  $routines names of the routines around it, outermost first
     */
    public function __construct(public Step $step, public int $position, public array $routines) {}
}
