<?php

declare(strict_types=1);

namespace LucidStep\Core\Data;

/**
 * The place of a value in a text: `{{name}}`.
 */
final readonly class Placeholder
{
    /**
     * @param  string  $name    as it was typed
     */
    public function __construct(public string $name) {}

    /**
     * The name as it is looked up: names do not tell upper from lower case.
     */
    public function key(): string
    {
        return mb_strtolower($this->name);
    }
}
