<?php

declare(strict_types=1);

namespace LucidStep\Core\Data;

/**
 * A parameter of a routine.
 */
final readonly class Parameter
{
    /**
     * @param  string  $default what stands for it where no value is given; may hold places itself
     */
    public function __construct(public string $name, public string $default = '') {}

    public function key(): string
    {
        return mb_strtolower($this->name);
    }
}
