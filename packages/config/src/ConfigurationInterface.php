<?php

declare(strict_types=1);

namespace League\Config;

/**
 * Reads configuration values.
 */
interface ConfigurationInterface
{
    /**
     * The value under a dotted or slashed path, after validation.
     *
     * @throws Exception\UnknownOptionException when nothing of that name is known
     * @throws Exception\ValidationException    when the values given do not fit the schema
     */
    public function get(string $key): mixed;

    /**
     * Whether a path has a value.
     */
    public function exists(string $key): bool;
}
