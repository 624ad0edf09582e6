<?php

declare(strict_types=1);

namespace LucidStep\Core\Planning;

/**
 * A value of one axis together with a value of another.
 */
final readonly class ValuePair
{
    public function __construct(public string $axis, public string $value, public string $otherAxis, public string $otherValue) {}

    /**
     * In words, such as "Phone with Firefly".
     */
    public function label(): string
    {
        return "{$this->value} with {$this->otherValue}";
    }
}
