<?php

declare(strict_types=1);

namespace League\Config\Exception;

/**
 * Anything that goes wrong with a configuration.
 */
interface ConfigurationExceptionInterface extends \Throwable {}
