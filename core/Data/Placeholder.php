<?php

declare(strict_types=1);

namespace LucidStep\Core\Data;

/**
 * The place of a value in a text: `{{name}}`.
 */
final readonly class Placeholder
{
    private string $key;

    /**
     * @param  string  $name    as it was typed
     */
    public function __construct(public string $name)
    {
        $this->key = mb_strtolower($name);
    }

    /**
     * The name as it is looked up: names do not tell upper from lower case.
     */
    public function key(): string
    {
        return $this->key;
    }
}
