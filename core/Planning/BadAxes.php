<?php

declare(strict_types=1);

namespace LucidStep\Core\Planning;

/**
 * Axes that no configurations can be made of.
 */
final class BadAxes extends \DomainException
{
    public static function empty(string $axis): self
    {
        return new self("The axis “{$axis}” has no value.");
    }

    public static function twice(string $axis): self
    {
        return new self("The axis “{$axis}” has a value twice.");
    }

    public static function none(): self
    {
        return new self('There is no axis to make configurations of.');
    }

    public static function sameName(string $axis): self
    {
        return new self("Two axes are called “{$axis}”.");
    }

    public static function tooMany(int $most): self
    {
        return new self("These axes give more than {$most} configurations. Use pairs, or fewer values.");
    }

    public static function unknown(string $axis, string $value): self
    {
        return new self("There is no value “{$value}” on the axis “{$axis}”.");
    }

    public static function tooManyPairs(int $pairs, int $most): self
    {
        return new self(
            \sprintf(
                'These axes have %s pairs of values; at most %s can be looked through. Take fewer axes or values, ' .
                    'or several of a kind as one.',
                number_format($pairs),
                number_format($most),
            ),
        );
    }

    public static function tooEntangled(): self
    {
        return new self('So many pairs cannot meet that what is left cannot be found. Take some of them out, or an axis.');
    }
}
