<?php

declare(strict_types=1);

namespace League\Config;

/**
 * Hands out its configuration.
 */
interface ConfigurationProviderInterface
{
    public function getConfiguration(): ConfigurationInterface;
}
