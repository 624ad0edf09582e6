<?php

declare(strict_types=1);

namespace League\Config;

/**
 * A view of a configuration that cannot change it.
 */
final class ReadOnlyConfiguration implements ConfigurationInterface
{
    public function __construct(private readonly ConfigurationInterface $inner) {}

    public function get(string $key): mixed
    {
        return $this->inner->get($key);
    }

    public function exists(string $key): bool
    {
        return $this->inner->exists($key);
    }
}
