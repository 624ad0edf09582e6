<?php

declare(strict_types=1);

namespace League\Config\Exception;

/**
 * A value that cannot be used.
 */
class InvalidConfigurationException extends \UnexpectedValueException implements ConfigurationExceptionInterface
{
    /**
     * @param  string  $option      the option's path
     * @param  mixed  $valueGiven  what was given
     * @param  ?string  $description what is wanted instead
     */
    public static function forConfigOption(string $option, mixed $valueGiven, ?string $description = null): self
    {
        $message = \sprintf('Invalid config option for "%s": %s', $option, get_debug_type($valueGiven));

        return new self(null === $description ? $message : "{$message}: {$description}");
    }

    /**
     * @param  string  $option     the option's path
     * @param  mixed  $valueGiven the parameter that was given
     * @param  string  ...$wanted  the types that would do
     */
    public static function forParameter(string $option, mixed $valueGiven, string ...$wanted): self
    {
        return new self(
            \sprintf('Invalid parameter "%s": %s given, %s wanted', $option, get_debug_type($valueGiven), implode('|', $wanted)),
        );
    }
}
