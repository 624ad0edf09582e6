<?php

declare(strict_types=1);

namespace League\Config;

/**
 * Takes both schemas and values.
 */
interface ConfigurationBuilderInterface extends MutableConfigurationInterface, SchemaBuilderInterface {}
