<?php

declare(strict_types=1);

namespace League\Config;

/**
 * Takes configuration values.
 */
interface MutableConfigurationInterface
{
    /**
     * Sets the value under a path.
     */
    public function set(string $key, mixed $value): void;

    /**
     * Merges values into what is there, the new ones winning.
     *
     * @param  array<string, mixed>  $config
     */
    public function merge(array $config = []): void;
}
