<?php

declare(strict_types=1);

namespace LucidStep\Core\Data;

/**
 * A column of a data table.
 */
final readonly class Column
{
    /**
     * @param  bool  $secret whether its values are hidden in everything that leaves the walk
     */
    public function __construct(public string $name, public bool $secret = false) {}
}
