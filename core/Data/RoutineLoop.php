<?php

declare(strict_types=1);

namespace LucidStep\Core\Data;

/**
 * A routine would stand within itself.
 */
final class RoutineLoop extends \DomainException
{
    /**
     * @param  non-empty-list<string>  $names in order, the first again at the end
     */
    public function __construct(public readonly array $names)
    {
        parent::__construct('A routine cannot stand within itself: ' . implode(' → ', $names) . '.');
    }
}
