<?php

declare(strict_types=1);

namespace LucidStep\Core\Planning;

/**
 * Somebody entries can be given to.
 */
final readonly class Assignee
{
    /**
     * @param  float  $capacity minutes until the end, or a share; 0: gets nothing
     */
    public function __construct(public string $id, public float $capacity) {}
}
